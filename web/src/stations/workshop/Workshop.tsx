import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";

type Card = Schemas["ProjectCard"];

/** The projects on the shelf. */
export function Workshop() {
	const projects = useQuery({ queryKey: ["projects"], queryFn: () => take(client.GET("/api/projects")) });
	const failure = projects.error instanceof Refusal ? projects.error : null;
	return (
		<div className="mx-auto h-full max-w-[1120px] overflow-y-auto px-8 py-8">
			<header className="flex items-end justify-between border-b-2 border-ink pb-3">
				<div>
					<h1 className="text-[28px] leading-tight font-semibold">Loquet</h1>
					<p className="text-ink-2">Projects on the shelf of the Larkfield workshop</p>
				</div>
				<OpenBrief />
			</header>
			{failure && (
				<p className="mt-6 text-stop">
					{failure.sentence} {failure.wayOut}
				</p>
			)}
			<StartFrom />
			<ul className="mt-2">
				{(projects.data ?? []).map((card) => (
					<Row key={card.id} card={card} />
				))}
			</ul>
			{projects.data?.length === 0 && <p className="mt-6">No projects yet. Read a brief from a file to begin.</p>}
		</div>
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

function Row({ card }: { card: Card }) {
	return (
		<li className="border-b border-rule">
			<Link
				to={`/project/${card.id}/${card.next_station === "release" ? "board" : card.next_station}`}
				data-project={card.name}
				className="grid grid-cols-[64px_1fr_220px_210px] items-center gap-5 px-2 py-4 hover:bg-card"
			>
				<Silhouette w={card.width_mm} h={card.height_mm} />
				<span>
					<span className="block text-[16px] font-semibold">
						{card.name} <span className="font-normal text-ink-2">revision {card.revision}</span>
					</span>
					<span className="block text-ink-2">{card.purpose}</span>
				</span>
				<span className="figure text-[12px] text-ink-2">
					{card.controls} controls, {card.width_mm.toFixed(0)} x {card.height_mm.toFixed(0)} mm
					<br />
					{card.chip}
				</span>
				<span className="text-[12px]">
					<span className="flex items-center gap-2">
						<Sign kind={card.stops ? "stop" : "clear"} />
						{card.stops ? `${card.stops} stops before an order` : "no stops before an order"}
					</span>
					<span className="block text-ink-2">
						{card.quantity} wanted by <span className="figure">{card.wanted_by}</span>
					</span>
				</span>
			</Link>
		</li>
	);
}

/** The board's outline in proportion. */
function Silhouette({ w, h }: { w: number; h: number }) {
	const scale = 56 / Math.max(w, h);
	return (
		<svg width={64} height={60} aria-hidden="true">
			<rect
				x={32 - (w * scale) / 2}
				y={30 - (h * scale) / 2}
				width={w * scale}
				height={h * scale}
				rx={4}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
			/>
		</svg>
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
