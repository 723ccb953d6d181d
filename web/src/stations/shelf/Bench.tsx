import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { Amount } from "./Amount";
import { BodyFields } from "./BodyFields";
import { Drawing } from "./Drawing";
import { InUse } from "./InUse";
import { PinFigures } from "./PinFigures";
import { Surroundings } from "./Surroundings";
import { Terminals } from "./Terminals";
import { blank, likeThis, OWN, type Part, type Role, SHELF } from "./typed";

type Looked = Schemas["Looked"];
const DRAFT = "part on the bench";
const EVIDENCE: [Part["evidence"], string][] = [
	["drawing", "read from its drawing"],
	["measurement", "measured"],
	["standard", "a standard says so"],
	["none", "nobody has made sure"],
];

/** One part on the bench: its drawing first, what it lacks in the order of harm, then all that is known of it. */
export function Bench({
	id,
	drawer,
	roles,
	taken,
	kept,
	gone,
}: {
	id: string;
	drawer: Role | undefined;
	roles: Role[];
	taken: string[];
	kept: (part: Part) => void;
	gone: () => void;
}) {
	const queries = useQueryClient();
	const query = useQuery({
		queryKey: [...SHELF, id],
		enabled: id !== "",
		queryFn: () => take(client.GET("/api/shelf/part", { params: { query: { id } } })),
	});
	const [draft, setDraft] = useState<Part | null>(() => keptDraft(id));
	const [looked, setLooked] = useState<Looked | null>(null);
	const [problem, setProblem] = useState("");
	// Who begins a part by keyboard goes on in its first field.
	const first = useRef<HTMLInputElement>(null);
	const typing = draft !== null;
	useEffect(() => {
		if (typing) first.current?.focus();
	}, [typing]);
	useEffect(() => {
		if (draft) sessionStorage.setItem(DRAFT, JSON.stringify({ from: id, part: draft }));
	}, [draft, id]);
	useEffect(() => {
		if (!draft) return setLooked(null);
		let late = false;
		const timer = setTimeout(() => {
			void take(client.POST("/api/shelf/look", { body: { part: draft, version: 0 } })).then(
				(answer) => !late && setLooked(answer),
				() => undefined,
			);
		}, 150);
		return () => {
			late = true;
			clearTimeout(timer);
		};
	}, [draft]);
	if (!id && !draft)
		return (
			<section className="flex-1 p-6 text-ink-2">
				<p>Nothing lies on the bench.</p>
				{drawer && (
					<Button weight="main" className="mt-3" data-testid="new-of" onClick={() => setDraft(blank(drawer, taken))}>
						New {drawer.name}, from its data sheet
					</Button>
				)}
			</section>
		);
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (id && !query.data) return <p className="p-6 text-ink-2">Laying it on the bench.</p>;
	const seen = query.data ?? unseen(draft as Part);
	const part = draft ?? seen.part;
	const role = roles.find((one) => one.name === part.kind);
	const about: Looked = draft && looked ? looked : seen;
	const own = seen.version > 0 && seen.part.id === part.id;
	const put = (change: Partial<Part>) => setDraft({ ...part, ...change });
	const leave = () => {
		sessionStorage.removeItem(DRAFT);
		setDraft(null);
		setProblem("");
	};
	const ask = async (request: () => Promise<void>) => {
		try {
			await request();
			setProblem("");
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	const keep = () =>
		ask(async () => {
			const version = own ? seen.version : 0;
			const answer = await take(client.PUT("/api/shelf/part", { body: { part, version } }));
			leave();
			await queries.invalidateQueries({ queryKey: SHELF });
			kept(answer.part);
		});
	const drop = () =>
		ask(async () => {
			await take(client.DELETE("/api/shelf/entry", { params: { query: { id, version: seen.version } } }));
			await queries.invalidateQueries({ queryKey: SHELF });
			gone();
		});
	return (
		<section
			aria-label="Bench"
			className="min-w-0 flex-1 overflow-y-auto px-5 py-4"
			data-testid="bench"
			data-part={part.id}
		>
			<div>
				<div>
					{draft ? (
						<>
							<h2 className="sr-only">{part.description || "A part that is being typed"}</h2>
							<input
								ref={first}
								aria-label="What it is"
								placeholder="what it is, in a line: Linear regulator, 3.3 V, 500 mA"
								className="w-full border border-line bg-card px-2 py-1 text-[16px] font-semibold"
								value={part.description}
								onChange={(event) => put({ description: event.target.value })}
							/>
						</>
					) : (
						<h2 className="text-[20px] leading-tight font-semibold">{part.description}</h2>
					)}
					<p className="mt-1 flex items-center gap-2 text-ink-2">
						{draft && !own ? (
							<label className="flex items-center gap-1">
								<span>{OWN}</span>
								<input
									aria-label="Name on the shelf"
									className="w-[230px] border border-line bg-card px-1.5 py-0.5 text-ink"
									value={part.id.slice(OWN.length)}
									onChange={(event) => put({ id: OWN + event.target.value.toLowerCase() })}
								/>
							</label>
						) : (
							<span className="whitespace-nowrap">{part.id}</span>
						)}
						<span>
							{part.kind}
							{seen.version > 0 && !draft && `, version ${seen.version}`}
							{seen.version === 0 && !draft && ", ships with Loquet, invented price"}
						</span>
					</p>
				</div>
				<div className="mt-2 flex flex-wrap gap-2">
					{draft ? (
						<>
							<Button onClick={leave}>Leave it as it was</Button>
							<Button
								weight="main"
								data-testid="keep-part"
								disabled={about.faults.length > 0}
								onClick={() => void keep()}
							>
								Keep on the shelf
							</Button>
						</>
					) : (
						<>
							{own && <Button onClick={() => setDraft(seen.part)}>Change it</Button>}
							{own && <Button onClick={() => void drop()}>Take off the shelf</Button>}
							<Button
								weight={own ? "plain" : "main"}
								data-testid="like-this"
								onClick={() => setDraft(likeThis(seen.part, taken))}
							>
								Like this one, but
							</Button>
							<a
								className="self-center text-patina underline"
								href={`/api/shelf/part/page.pdf?id=${encodeURIComponent(part.id)}`}
								target="_blank"
								rel="noreferrer"
							>
								Page to lay it on (PDF)
							</a>
							{role && (
								<Button data-testid="new-of" onClick={() => setDraft(blank(role, taken, seen.part.reference))}>
									New, from its data sheet
								</Button>
							)}
						</>
					)}
				</div>
			</div>
			{problem && (
				<p role="alert" className="mt-2 text-stop">
					{problem}
				</p>
			)}
			<div className="mt-4 flex items-start gap-x-6">
				{about.drawing ? (
					<Drawing drawing={about.drawing} title={part.description || part.id} />
				) : (
					<p className="text-ink-2">It cannot be drawn with these dimensions.</p>
				)}
				<Missing about={about} drafted={draft !== null} />
			</div>
			<div className="mt-5 grid grid-cols-[minmax(330px,1fr)_minmax(250px,330px)] items-start gap-8">
				<div>
					<Terminals
						part={part}
						put={draft ? put : null}
						asked={role?.terminals ?? []}
						loose={[...new Set((about.drawing?.pads ?? []).filter((pad) => !pad.terminal).map((pad) => pad.number))]}
					/>
					<Surroundings part={part} put={draft ? put : null} />
					<InUse part={part} role={role} put={draft ? put : null} />
				</div>
				<div>
					<PinFigures part={part} role={role} put={draft ? put : null} />
					<BodyFields part={part} put={draft ? put : null} />
					<Evidence part={part} put={draft ? put : null} />
					{!draft && <History seen={seen} />}
				</div>
			</div>
		</section>
	);
}

/** A part that is on no shelf yet, as one that is seen. */
function unseen(part: Part): Schemas["ShelfPart"] {
	return { part, version: 0, versions: [], used_in: [], faults: [], lacks: [], drawing: null };
}

/** What lay on the bench when the page was left, if it is of this part. */
function keptDraft(id: string): Part | null {
	try {
		const kept = JSON.parse(sessionStorage.getItem(DRAFT) ?? "null") as { from: string; part: Part } | null;
		return kept?.from === id ? kept.part : null;
	} catch {
		return null;
	}
}

function Missing({ about, drafted }: { about: Looked; drafted: boolean }) {
	const barred = about.lacks
		.filter((lack) => !lack.serves)
		.map((lack) => `${lack.words}: no recipe can take it without`);
	const stops = [...about.faults.map((fault) => `${fault.problem}. ${fault.way_out}`), ...barred];
	const looks = about.lacks.filter((lack) => lack.serves);
	const many = stops.length + looks.length;
	return (
		<div className="min-w-[190px] flex-1 text-[12px]" data-testid="missing">
			<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">
				{many ? `${many} missing, the most harmful first` : "Nothing is missing"}
			</h3>
			{many === 0 && <p className="mt-1 text-ink-2">Recipes take it, and every rule of its kind can look at it.</p>}
			<ul>
				{stops.map((words) => (
					<Line key={words} kind="stop" words={words} />
				))}
				{looks.map((lack) => (
					<Line key={lack.what} kind="look" words={lack.words} />
				))}
			</ul>
			{looks.length > 0 && (
				<p className="mt-2 text-ink-2">
					{drafted ? "A figure that is not known may stay empty: what" : "What"} hangs on it goes unchecked, and is a
					look at every board that uses it.
				</p>
			)}
		</div>
	);
}

function Line({ kind, words }: { kind: "stop" | "look"; words: string }) {
	return (
		<li className="mt-1 flex gap-2 leading-tight">
			<span className="mt-[2px] shrink-0">
				<Sign kind={kind} size={12} />
			</span>
			{words}
		</li>
	);
}

function Evidence({ part, put }: { part: Part; put: ((change: Partial<Part>) => void) | null }) {
	return (
		<section aria-label="Evidence" className="mt-4 text-[12px]">
			<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">Evidence and price</h3>
			{put ? (
				<div className="mt-2 grid grid-cols-[110px_1fr] items-center gap-y-1">
					<span className="text-ink-2">made sure</span>
					<select
						aria-label="How it was made sure of"
						className="border border-line bg-card px-1 py-0.5"
						value={part.evidence}
						onChange={(event) => put({ evidence: event.target.value as Part["evidence"] })}
					>
						{EVIDENCE.map(([value, words]) => (
							<option key={value} value={value}>
								{words}
							</option>
						))}
					</select>
					<span className="text-ink-2">by what</span>
					<input
						aria-label="Drawing with page, or who measured when"
						placeholder="drawing and page, or who and when"
						className="border border-line bg-card px-1 py-0.5"
						value={part.evidence_text}
						onChange={(event) => put({ evidence_text: event.target.value })}
					/>
					<span className="text-ink-2">own price</span>
					<Amount
						label="Price in cents"
						value={part.price_cents}
						unit="cents a piece"
						set={(n) => put({ price_cents: n ?? 0 })}
					/>
					<span className="text-ink-2">height</span>
					<Amount label="Height in mm" value={part.height_mm} unit="mm" set={(n) => put({ height_mm: n ?? 0 })} />
					<span className="text-ink-2">sold as</span>
					<input
						aria-label="Numbers under which it is sold"
						placeholder="makers' numbers, as price lists have them"
						className="border border-line bg-card px-1 py-0.5"
						value={part.sold_as.join(", ")}
						onChange={(event) => put({ sold_as: event.target.value.split(/,\s*/).filter(Boolean) })}
					/>
					<span className="text-ink-2">letters</span>
					<span className="flex items-center gap-3">
						<input
							aria-label="Letters of its name on a board"
							className="w-[56px] border border-line bg-card px-1 py-0.5"
							maxLength={3}
							value={part.reference}
							onChange={(event) => put({ reference: event.target.value.toUpperCase() })}
						/>
						<label className="flex items-center gap-1.5">
							<input
								type="checkbox"
								checked={part.hand_fitted}
								onChange={(event) => put({ hand_fitted: event.target.checked })}
							/>
							always soldered by hand
						</label>
					</span>
				</div>
			) : (
				<p className="mt-1">
					{EVIDENCE.find(([value]) => value === part.evidence)?.[1]}
					{part.evidence_text && `: ${part.evidence_text}`}.{" "}
					<span className="figure">{(part.price_cents / 100).toFixed(2)} €</span>,{" "}
					<span className="figure">{part.height_mm}</span> mm high
					{part.sold_as.length > 0 && `, sold as ${part.sold_as.join(", ")}`}.
				</p>
			)}
		</section>
	);
}

function History({ seen }: { seen: Schemas["ShelfPart"] }) {
	if (seen.version === 0) return null;
	return (
		<section aria-label="History" className="mt-4 text-[12px]">
			<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">Where it is used</h3>
			{seen.used_in.length === 0 && (
				<p className="mt-1 text-ink-2">In no project yet. A project takes it at its Parts.</p>
			)}
			<ul className="mt-1">
				{seen.used_in.map((row) => (
					<li key={row.project}>
						<Link className="text-patina underline" to={`/project/${row.project}/parts`}>
							{row.name}
						</Link>{" "}
						<span className="text-ink-2">{row.same ? "as it is now" : "as it was before"}</span>
					</li>
				))}
			</ul>
			<h3 className="mt-3 border-b border-ink pb-1 text-[14px] font-semibold">Versions</h3>
			<ol className="mt-1">
				{seen.versions.map((row) => (
					<li key={row.version} className="mt-1">
						<span className="figure">{row.version}</span>, {row.day}, {row.author}
						{row.changed.slice(0, 5).map((change) => (
							<div key={change.field} className="pl-3 text-ink-2">
								{change.field}: <s>{change.before}</s> {change.after}
							</div>
						))}
					</li>
				))}
			</ol>
		</section>
	);
}
