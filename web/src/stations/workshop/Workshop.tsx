import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { OrderBook } from "./OrderBook";
import { Row } from "./Row";
import { type Card, chosen, type Kept, SORTS, type Sort } from "./shelf";

type Moved = { card: Card; from: Kept };
const PLACES = [
	["shelf", "On the shelf"],
	["archive", "Archive"],
	["removed", "Removed"],
] as const;
const WORDS: Record<Kept, string> = {
	shelf: "is on the shelf again",
	archive: "is in the archive",
	removed: "is removed",
};

const [WHILE_MADE_MS, WHILE_STILL_MS] = [1_500, 15_000];

/** The projects, on the shelf, in the archive, or removed. */
export function Workshop() {
	const projects = useQuery({
		queryKey: ["projects"],
		queryFn: () => take(client.GET("/api/projects")),
		refetchInterval: (query) => (query.state.data?.some((card) => card.jobs.length) ? WHILE_MADE_MS : WHILE_STILL_MS),
	});
	const queries = useQueryClient();
	const failure = projects.error instanceof Refusal ? projects.error : null;
	const [kept, setKept] = useState<Kept>("shelf");
	const [book, setBook] = useState(false);
	const [words, setWords] = useState("");
	const [sort, setSort] = useState<Sort>("changed");
	const [moved, setMoved] = useState<Moved | null>(null);
	const [problem, setProblem] = useState("");
	const all = projects.data ?? [];
	const rows = chosen(all, kept, words, sort);
	useEffect(() => {
		document.title = "Workshop, Loquet";
	}, []);
	const keep = async (card: Card, to: Kept) => {
		try {
			await take(
				client.PUT("/api/projects/{project_id}/kept", {
					params: { path: { project_id: card.id } },
					body: { kept: to },
				}),
			);
			setProblem("");
			setMoved(to === card.kept ? null : { card: { ...card, kept: to }, from: card.kept });
			await queries.invalidateQueries({ queryKey: ["projects"] });
		} catch (error) {
			if (error instanceof Refusal) setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	return (
		<main className="mx-auto h-full max-w-[1120px] overflow-y-auto px-8 py-8">
			<header className="flex items-end justify-between border-b-2 border-ink pb-3">
				<div>
					<h1 className="text-[28px] leading-tight font-semibold">Loquet</h1>
					<p className="text-ink-2">Projects on the shelf of the Larkfield workshop</p>
				</div>
				<div className="flex items-start gap-2">
					<Link
						to="/shelf"
						className="inline-flex items-center rounded-[3px] border border-line bg-card px-2.5 py-1 font-medium hover:border-ink-2"
					>
						Shelf
					</Link>
					<ReadIn />
					<OpenBrief />
				</div>
			</header>
			{failure && (
				<p className="mt-6 text-stop">
					{failure.sentence} {failure.wayOut}
				</p>
			)}
			<StartFrom />
			<div className="mt-4 flex flex-wrap items-center gap-2 border-b border-rule pb-2">
				{PLACES.map(([name, title]) => (
					<button
						key={name}
						type="button"
						aria-pressed={!book && kept === name}
						data-kept={name}
						className={`rounded-[3px] px-2.5 py-1 font-medium ${!book && kept === name ? "bg-ink text-paper" : "text-ink-2 hover:text-ink"}`}
						onClick={() => {
							setBook(false);
							setKept(name);
						}}
					>
						{title} <span className="figure">{all.filter((card) => card.kept === name).length}</span>
					</button>
				))}
				<button
					type="button"
					aria-pressed={book}
					data-testid="order-book-tab"
					className={`rounded-[3px] px-2.5 py-1 font-medium ${book ? "bg-ink text-paper" : "text-ink-2 hover:text-ink"}`}
					onClick={() => setBook(true)}
				>
					Order book
				</button>
				<span className="flex-1" />
				{!book && (
					<>
						<input
							type="search"
							aria-label="Search projects"
							placeholder="name, purpose or chip"
							className="w-[220px] border border-line bg-card px-2 py-1"
							value={words}
							onChange={(event) => setWords(event.target.value)}
						/>
						<label className="flex items-center gap-1.5 text-ink-2">
							sorted by
							<select
								className="border border-line bg-card px-1.5 py-1 text-ink"
								value={sort}
								data-testid="sort-projects"
								onChange={(event) => setSort(event.target.value as Sort)}
							>
								{SORTS.map(([name, title]) => (
									<option key={name} value={name}>
										{title}
									</option>
								))}
							</select>
						</label>
					</>
				)}
			</div>
			{book ? (
				<OrderBook />
			) : (
				<>
					<p role="status" className="flex min-h-[28px] items-center gap-3 text-[12px]">
						{problem && <span className="text-stop">{problem}</span>}
						{moved && !problem && (
							<>
								<span>
									{moved.card.name} {WORDS[moved.card.kept]}.
								</span>
								<Button
									weight="quiet"
									data-testid="undo-keep"
									onClick={() => void keep(moved.card, moved.from).then(() => setMoved(null))}
								>
									Undo
								</Button>
							</>
						)}
					</p>
					<ul>
						{rows.map((card) => (
							<Row key={card.id} card={card} keep={(to) => void keep(card, to)} />
						))}
					</ul>
					{projects.isLoading && <p className="mt-6 text-ink-2">Reading the shelf.</p>}
					{projects.data && rows.length === 0 && (
						<p className="mt-6 text-ink-2">
							{words
								? "No project here has all of these words."
								: kept === "shelf"
									? "Nothing lies on the shelf. Begin a new project above, or read a brief from a file."
									: kept === "archive"
										? "The archive is empty. A project that is done with can be put here, and taken out again."
										: "Nothing was removed. What is removed waits here and can come back."}
						</p>
					)}
				</>
			)}
		</main>
	);
}

/** Starting points: each is a whole brief, and all of it can be changed. */
function StartFrom() {
	const navigate = useNavigate();
	const queries = useQueryClient();
	const presets = useQuery({
		queryKey: ["presets"],
		queryFn: () => take(client.GET("/api/presets")),
		staleTime: Number.POSITIVE_INFINITY,
	});
	const begin = async (brief: Schemas["Brief"]) => {
		const head = await take(client.POST("/api/projects", { body: brief as never }));
		await queries.invalidateQueries({ queryKey: ["projects"] });
		navigate(`/project/${head.project}/brief`);
	};
	return (
		<div className="mt-3 flex flex-wrap items-center gap-2 text-[12px]">
			<span className="text-ink-2">Begin a new one from</span>
			{(presets.data ?? []).map((preset) => (
				<Button
					key={preset.id}
					title={preset.about}
					data-preset={preset.id}
					className="!py-0.5"
					onClick={() => void begin(preset.brief)}
				>
					{preset.title}
				</Button>
			))}
		</div>
	);
}

function OpenBrief() {
	const input = useRef<HTMLInputElement>(null);
	const navigate = useNavigate();
	const queries = useQueryClient();
	const [problem, setProblem] = useState("");
	const read = async (file: File | undefined) => {
		if (!file) return;
		setProblem("");
		try {
			if (file.size > 1_000_000)
				throw new Refusal(
					`${file.name} is ${(file.size / 1e6).toFixed(1)} MB large.`,
					"A brief is at most 1 MB; check that this is the right file.",
					413,
				);
			const text = new TextDecoder("utf-8", { fatal: true }).decode(await file.arrayBuffer());
			const head = await take(client.POST("/api/projects", { body: JSON.parse(text) as never }));
			await queries.invalidateQueries({ queryKey: ["projects"] });
			navigate(`/project/${head.project}/brief`);
		} catch (error) {
			if (error instanceof Refusal) setProblem(`${error.sentence} ${error.wayOut}`);
			else if (error instanceof SyntaxError)
				setProblem(`${file.name} is not JSON (${error.message}). Mend it at that place.`);
			else setProblem(`${file.name} is not UTF-8 text. Save it as UTF-8.`);
		}
		if (input.current) input.current.value = "";
	};
	return (
		<div className="max-w-[520px] text-right">
			<input
				ref={input}
				type="file"
				accept=".json"
				aria-label="Brief file"
				data-testid="brief-file"
				className="sr-only"
				onChange={(event) => void read(event.target.files?.[0])}
			/>
			<Button weight="main" onClick={() => input.current?.click()}>
				Read a brief from a file
			</Button>
			{problem && (
				<p
					role="alert"
					data-testid="brief-problem"
					className="mt-2 flex items-start gap-2 text-left text-[12px] text-stop"
				>
					<Sign kind="stop" /> {problem}
				</p>
			)}
		</div>
	);
}

/** A project of another machine, read from its file. */
function ReadIn() {
	const input = useRef<HTMLInputElement>(null);
	const navigate = useNavigate();
	const [problem, setProblem] = useState("");
	const read = async (file: File | undefined) => {
		if (!file) return;
		const answer = await fetch("/api/projects/read-in", {
			method: "POST",
			headers: { "X-Loquet": "page", "Content-Type": "application/zip" },
			body: file,
		});
		const said = (await answer.json()) as { project?: number; sentence?: string; way_out?: string };
		if (answer.ok && said.project) navigate(`/project/${said.project}/log`);
		else setProblem(`${said.sentence ?? "The file was refused."} ${said.way_out ?? ""}`.trim());
	};
	return (
		<div className="max-w-[320px] text-right">
			<input
				ref={input}
				type="file"
				accept=".zip"
				aria-label="Project file"
				data-testid="project-in"
				className="sr-only"
				onChange={(event) => void read(event.target.files?.[0])}
			/>
			<Button onClick={() => input.current?.click()}>Read a project in</Button>
			{problem && (
				<p role="alert" className="mt-2 text-left text-[12px] text-stop">
					{problem}
				</p>
			)}
		</div>
	);
}
