import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { HeatCurve } from "../build/HeatCurve";
import { Figure, Line, Words } from "./fields";
import { idOf, PASTES } from "./owned";

type Paste = Schemas["Paste"];
type Spans = "soak_c" | "soak_s" | "liquid_s" | "peak_c";
const SPANS: [Spans, string, string][] = [
	["soak_c", "soak", "°C"],
	["soak_s", "for", "s"],
	["liquid_s", "above that for", "s"],
	["peak_c", "peak", "°C"],
];
type Limits = "liquid_c" | "up_k_s" | "down_k_s" | "whole_s";
const LIMITS: [Limits, string, string][] = [
	["liquid_c", "melts at", "°C"],
	["up_k_s", "at most, upwards", "K/s"],
	["down_k_s", "at most, downwards", "K/s"],
	["whole_s", "from 25 °C to the peak", "s at most"],
];

/** Solder pastes: those of the standard, and one's own from their data sheets; the curve leads. */
export function PastesPage() {
	const queries = useQueryClient();
	const query = useQuery({ queryKey: PASTES, queryFn: () => take(client.GET("/api/shelf/pastes")) });
	const [picked, setPicked] = useState("");
	const [draft, setDraft] = useState<Paste | null>(null);
	const [problem, setProblem] = useState("");
	const rows = query.data ?? [];
	const row = rows.find((one) => one.paste.id === picked) ?? rows[0];
	const shown = draft ?? row?.paste;
	const looked = useLooked(shown);
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!row || !shown) return <p className="p-6 text-ink-2">Opening the shelf.</p>;
	const ask = async (request: () => Promise<void>) => {
		try {
			await request();
			setProblem("");
			await queries.invalidateQueries({ queryKey: PASTES });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	const keep = (paste: Paste) =>
		ask(async () => {
			const own = row.version > 0 && row.paste.id === paste.id;
			const taken = rows.map((one) => one.paste.id);
			const named = own ? paste : { ...paste, id: idOf("paste", paste.name, taken) };
			await take(client.PUT("/api/shelf/paste", { body: { paste: named, version: own ? row.version : 0 } }));
			setPicked(named.id);
			setDraft(null);
		});
	const drop = () =>
		ask(async () => {
			const query = { id: row.paste.id, version: row.version };
			await take(client.DELETE("/api/shelf/entry", { params: { query } }));
			setPicked("");
		});
	const faults = looked?.faults ?? [];
	return (
		<div className="flex min-h-0 flex-1">
			<nav aria-label="Pastes" className="w-[240px] shrink-0 overflow-y-auto border-r border-rule py-3 pr-3">
				{rows.map((one) => (
					<button
						key={one.paste.id}
						type="button"
						data-paste={one.paste.id}
						aria-pressed={!draft && row === one}
						className={`mb-1.5 w-full border px-2 py-1.5 text-left ${!draft && row === one ? "border-copper bg-card" : "border-line hover:border-ink-2"}`}
						onClick={() => {
							setDraft(null);
							setPicked(one.paste.id);
						}}
					>
						<span className="block leading-tight">{one.paste.name}</span>
						<span className="text-[12px] text-ink-2">
							melts at {one.paste.liquid_c} °C, {one.version ? "one's own" : "as the standard has it"}
						</span>
					</button>
				))}
			</nav>
			<section aria-label="Paste" className="min-w-0 flex-1 overflow-y-auto px-5 py-4" data-testid="paste-bench">
				<div className="flex items-center gap-2">
					<h2 className="flex-1 text-[20px] font-semibold">{shown.name || "A paste that is being typed"}</h2>
					{draft ? (
						<>
							<Button onClick={() => setDraft(null)}>Leave it as it was</Button>
							<Button
								weight="main"
								data-testid="keep-paste"
								disabled={faults.length > 0 || draft.name.trim().length < 2}
								onClick={() => void keep(draft)}
							>
								Keep on the shelf
							</Button>
						</>
					) : (
						<>
							{row.version > 0 && <Button onClick={() => setDraft(row.paste)}>Change it</Button>}
							{row.version > 0 && <Button onClick={() => void drop()}>Take off the shelf</Button>}
							<Button
								weight="main"
								data-testid="like-this-paste"
								onClick={() => setDraft({ ...row.paste, id: "paste/new", name: "", known: "typed", source: "" })}
							>
								Like this one, but
							</Button>
						</>
					)}
				</div>
				{problem && (
					<p role="alert" className="mt-1 text-stop">
						{problem}
					</p>
				)}
				<div className="mt-3 grid grid-cols-[minmax(320px,1fr)_420px] items-start gap-8">
					<div>
						{looked && looked.profile.length > 0 ? (
							<HeatCurve limits={shown} profile={looked.profile} />
						) : (
							<ul className="text-stop">
								{faults.map((fault) => (
									<li key={fault.field}>
										{`${fault.problem[0]?.toUpperCase()}${fault.problem.slice(1)}`}. {fault.way_out}
									</li>
								))}
							</ul>
						)}
						<p className="text-[12px] text-ink-2">
							°C over seconds. Green: a profile inside these limits, as Build shows it. Heat and fumes: air the room,
							and keep food away from paste.
						</p>
					</div>
					{draft ? <PasteFields paste={draft} put={setDraft} /> : <PasteWords paste={shown} />}
				</div>
			</section>
		</div>
	);
}

/** What the server says of a paste while it is typed. */
function useLooked(paste: Paste | undefined) {
	const [looked, setLooked] = useState<Schemas["PasteLooked"] | null>(null);
	useEffect(() => {
		if (!paste) return;
		let late = false;
		const named = { ...paste, name: paste.name || "paste" };
		const timer = setTimeout(() => {
			void take(client.POST("/api/shelf/paste/look", { body: { paste: named, version: 0 } })).then(
				(answer) => !late && setLooked(answer),
				() => undefined,
			);
		}, 120);
		return () => {
			late = true;
			clearTimeout(timer);
		};
	}, [paste]);
	return looked;
}

function PasteFields({ paste, put }: { paste: Paste; put: (paste: Paste) => void }) {
	const set = (change: Partial<Paste>) => put({ ...paste, ...change });
	return (
		<div>
			<Line words="its name">
				<Words label="Name of the paste" value={paste.name} set={(name) => set({ name })} />
			</Line>
			<Line words="by its data sheet">
				<Words
					label="Data sheet of the paste"
					hint="data sheet and page"
					value={paste.source ?? ""}
					set={(source) => set({ source })}
				/>
			</Line>
			{SPANS.slice(0, 2).map((row) => (
				<Span key={row[0]} row={row} paste={paste} set={set} />
			))}
			<One row={LIMITS[0] as (typeof LIMITS)[number]} paste={paste} set={set} />
			{SPANS.slice(2).map((row) => (
				<Span key={row[0]} row={row} paste={paste} set={set} />
			))}
			{LIMITS.slice(1).map((row) => (
				<One key={row[0]} row={row} paste={paste} set={set} />
			))}
		</div>
	);
}

type Set = (change: Partial<Paste>) => void;

function Span({ row: [field, words, unit], paste, set }: { row: (typeof SPANS)[number]; paste: Paste; set: Set }) {
	const [low, high] = paste[field];
	return (
		<Line words={words}>
			<Figure label={`${words} from`} value={low} unit="to" set={(n) => set({ [field]: [n, high] })} />
			<Figure label={`${words} to`} value={high} unit={unit} set={(n) => set({ [field]: [low, n] })} />
		</Line>
	);
}

function One({ row: [field, words, unit], paste, set }: { row: (typeof LIMITS)[number]; paste: Paste; set: Set }) {
	return (
		<Line words={words}>
			<Figure label={words} value={paste[field]} unit={unit} set={(n) => set({ [field]: n })} />
		</Line>
	);
}

function PasteWords({ paste }: { paste: Paste }) {
	return (
		<div className="text-[12px]">
			<p className="mb-2 text-ink-2">{paste.source || "No source is named."}</p>
			{SPANS.map(([field, words, unit]) => (
				<Line key={field} words={words}>
					<span className="figure">
						{paste[field][0]} to {paste[field][1]}
					</span>{" "}
					{unit}
				</Line>
			))}
			{LIMITS.map(([field, words, unit]) => (
				<Line key={field} words={words}>
					<span className="figure">{paste[field]}</span> {unit}
				</Line>
			))}
		</div>
	);
}
