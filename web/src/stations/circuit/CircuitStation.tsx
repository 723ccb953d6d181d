import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { client, take } from "../../api/client";
import { Coming } from "../../app/Coming";
import { useReckoner } from "../../app/reckoner";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { Toggle } from "../../design/Toggle";
import { useSize } from "../../design/useSize";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { CurvePlot } from "./CurvePlot";
import { HandChanges } from "./HandChanges";
import { light } from "./lighting";
import { type Lit, litBy, type On, saidMa, saidVolts } from "./lit";
import { NetList } from "./NetPanel";
import { PartCard } from "./PartCard";
import { type Component, type Picked, type Sheet, titleOf, type View } from "./picked";
import { SheetDrawing } from "./SheetDrawing";
import { SwitchedOn } from "./SwitchedOn";
import { useSwitchedOn } from "./useSwitchedOn";

const FITS = { least: 3.6, most: 4.4 };
const STEPS = [2.6, 3.2, 4, 5, 6.5, 8];

/** The circuit as drawn sheets, with nets, parts and what was changed by hand beside them. */
export function CircuitStation() {
	const { head, start, jobs } = useDesign();
	const [picked, setPicked] = useState<Picked>(null);
	const { state, set, on, error: unlit } = useSwitchedOn();
	const lit = useMemo(() => (on ? litBy(on) : null), [on]);
	const query = useQuery({
		queryKey: ["project", head.project, "circuit", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/circuit", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const view = query.data;
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!view) return <p className="p-6 text-ink-2">Reading the circuit.</p>;
	const stale = head.stale.includes("circuit");
	const part = picked?.kind === "part" ? view.components.find((c) => c.ref === picked.name) : undefined;
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex items-center gap-3 border-b border-rule px-4 py-2">
				<span>
					<span className="figure">{view.components.length}</span> <span className="text-ink-2">components,</span>{" "}
					<span className="figure">{view.nets.length}</span> <span className="text-ink-2">nets</span>
				</span>
				{stale && (
					<span className="text-look">{view.components.length ? "drawn from earlier choices" : "not made yet"}</span>
				)}
				<span className="flex-1" />
				{view.components.length > 0 && !stale && (
					<Toggle on={state !== null} data-testid="switch-on" onClick={() => set(state === null ? "" : null)}>
						Switch it on
					</Toggle>
				)}
				{view.components.length > 0 && (
					<a
						className="text-patina underline"
						href={`/api/projects/${head.project}/sheets`}
						target="_blank"
						rel="noreferrer"
					>
						Sheets to print, A4
					</a>
				)}
				<Button
					disabled={jobs.some((j) => j.kind === "circuit")}
					onClick={() => void start("circuit")}
					data-testid="make-circuit"
				>
					{stale ? "Make the circuit" : "Make it again"}
				</Button>
			</div>
			{view.components.length === 0 ? (
				<Coming title="Drawn sheets will stand here" until="circuit">
					<Wanted />
				</Coming>
			) : (
				<div className="flex min-h-0 flex-1">
					<Sheets
						view={view}
						picked={picked}
						pick={setPicked}
						lit={state === null || stale ? null : lit}
						words={state === null || stale ? "" : unlit || wordsOf(on)}
					/>
					<div className="flex w-[226px] shrink-0 flex-col border-l border-rule">
						{state !== null && !stale && on && <SwitchedOn on={on} set={set} picked={picked} pick={setPicked} />}
						{state !== null && !stale ? null : part ? (
							<PartCard key={part.ref} component={part} view={view} pick={setPicked} />
						) : (
							<NetList view={view} picked={picked} pick={setPicked} />
						)}
						{(state === null || stale) && <HandChanges view={view} />}
						<datalist id="net-names">
							{view.nets.map((net) => (
								<option key={net.name} value={net.name} />
							))}
						</datalist>
					</div>
				</div>
			)}
		</div>
	);
}

/** A state in words, or that there is no answer in it. */
function wordsOf(on: On | null): string {
	if (!on) return "Switching it on.";
	return on.sound ? `${on.words}.` : `${on.words}: no answer was found that keeps its own sums.`;
}

/** What will get a circuit, and what has no recipe yet. */
function Wanted() {
	const { head } = useDesign();
	const things = head.things.filter((t) => t.bodies.length > 0 && t.group !== "marks");
	return (
		<ul className="grid flex-1 grid-cols-2 content-start gap-x-5">
			{things.map((thing) => (
				<li key={thing.name} className="flex items-baseline justify-between gap-2 border-b border-rule py-1">
					<span>{thing.label}</span>
					<span className="text-[12px] text-ink-2">{thing.title.toLowerCase()}</span>
				</li>
			))}
		</ul>
	);
}

/** All sheets, one below the other or side by side, at a scale that can be chosen. */
function Sheets({
	view,
	picked,
	pick,
	lit,
	words,
}: {
	view: View;
	picked: Picked;
	pick: (picked: Picked) => void;
	lit: Lit | null;
	words: string;
}) {
	const root = useRef<HTMLDivElement>(null);
	const [chosen, choose] = useKept<number | null>("sheet scale", null);
	const room = useSize(root);
	const parts = useMemo(() => new Map(view.components.map((c) => [c.ref, c])), [view]);
	const widest = Math.max(1, ...view.sheets.map((s) => s.width_mm));
	const scale = chosen ?? Math.min(FITS.most, Math.max(FITS.least, (room.w - 32) / widest));
	const over = usePointing(root, view, parts, lit);
	// biome-ignore lint/correctness/useExhaustiveDependencies: sheets that were drawn anew are lit anew
	useEffect(() => {
		if (!root.current) return;
		light(root.current, picked?.name ?? null, picked?.kind ?? "net", "pressed");
		const first = root.current.querySelector(".pressed");
		if (picked) first?.scrollIntoView({ block: "nearest", inline: "nearest" });
	}, [picked, view]);
	return (
		<div className="flex min-w-0 flex-1 flex-col">
			<div className="flex items-center gap-1 px-4 pt-1 text-[12px]" role="group" aria-label="Scale of the sheets">
				<span className={`flex-1 ${words ? "" : "text-ink-2"}`} data-testid="state-words">
					{words || "Press a part for its figures, a wire for its net."}
				</span>
				<Button
					weight="quiet"
					aria-label="Smaller"
					onClick={() => choose(STEPS.filter((s) => s < scale - 0.01).at(-1) ?? scale)}
				>
					−
				</Button>
				<Button weight="quiet" onClick={() => choose(null)}>
					Fit
				</Button>
				<Button weight="quiet" aria-label="Larger" onClick={() => choose(STEPS.find((s) => s > scale + 0.01) ?? scale)}>
					+
				</Button>
			</div>
			<div
				ref={root}
				className={`flex min-h-0 flex-1 flex-wrap content-start gap-x-8 overflow-auto pr-4 pb-4 ${lit ? "pl-14" : "pl-4"}`}
				onPointerOver={over}
				onPointerLeave={over}
			>
				{view.sheets.map((sheet) => (
					<OneSheet key={keyOf(sheet)} sheet={sheet} view={view} scale={scale} parts={parts} pick={pick} lit={lit} />
				))}
				<Further view={view} />
			</div>
		</div>
	);
}

/** Lights what is under the pointer everywhere and says it in the strip. */
function usePointing(
	root: { current: HTMLDivElement | null },
	view: View,
	parts: ReadonlyMap<string, Component>,
	lit: Lit | null,
) {
	const reckon = useReckoner();
	return useCallback(
		(event: { target: EventTarget; type: string }) => {
			if (!root.current) return;
			const over = event.type === "pointerleave" ? null : (event.target as Element);
			const net = over?.getAttribute("data-grasp") ?? over?.getAttribute("data-net") ?? null;
			light(root.current, net, "net", "under-pointer");
			const part = parts.get(over?.getAttribute("data-press") ?? over?.getAttribute("data-part") ?? "");
			const row = net ? view.nets.find((n) => n.name === net) : undefined;
			const node = net ? lit?.nodes.get(net) : undefined;
			const load = part ? lit?.loads.get(part.ref) : undefined;
			if (row && node) reckon(`${row.name}: ${saidVolts(node.volts)}, ${saidMa(node.ma)}`);
			else if (part && load)
				reckon(`${titleOf(part)}: ${load.words} ${load.amount.toPrecision(3)} of ${load.limit} ${load.unit}`);
			else if (row) reckon(`${row.name}: ${row.pads.map(([ref, pad]) => `${ref}.${pad}`).join(" ")}`);
			else if (part) reckon(`${titleOf(part)}: ${part.purpose}; ${part.evidence}`);
		},
		[root, view, parts, reckon, lit],
	);
}

const keyOf = (sheet: Sheet) => `${sheet.board} ${sheet.block} ${sheet.drawn.spots[0]?.ref ?? ""}`;

function OneSheet({
	sheet,
	view,
	scale,
	parts,
	pick,
	lit,
}: {
	lit: Lit | null;
	sheet: Sheet;
	view: View;
	scale: number;
	parts: ReadonlyMap<string, Component>;
	pick: (picked: Picked) => void;
}) {
	const several = new Set(view.sheets.map((s) => s.board)).size > 1;
	const shown = new Set(sheet.drawn.spots.map((spot) => spot.ref));
	const curves = view.curves.filter((c) => shown.has(c.parts[0] ?? ""));
	const figures = view.workings.filter((w) => sheet.workings.includes(w.id));
	return (
		<section aria-label={sheet.title} className="mb-5" data-sheet={sheet.block}>
			<h2 className="mb-3 border-b-2 border-ink pb-1 font-semibold">
				{sheet.title}
				{several && <span className="font-normal text-ink-2"> on {sheet.board}</span>}
			</h2>
			<SheetDrawing sheet={sheet} scale={scale} parts={parts} pick={pick} lit={lit} />
			{!lit && (
				<div className="flex flex-wrap gap-x-6">
					{curves.map((curve) => (
						<CurvePlot key={curve.id} curve={curve} />
					))}
				</div>
			)}
			{!lit && figures.length > 0 && (
				<div className="mt-2 max-w-[380px]">
					<Figures workings={figures} />
				</div>
			)}
		</section>
	);
}

/** Figures that set the value of no single part. */
function Further({ view }: { view: View }) {
	const shown = new Set(view.sheets.flatMap((s) => s.workings));
	const rest = view.workings.filter((w) => !shown.has(w.id));
	if (rest.length === 0) return null;
	return (
		<section className="mb-5 w-[420px]" aria-label="Further figures">
			<h2 className="mb-2 border-b-2 border-ink pb-1 font-semibold">Further figures</h2>
			<Figures workings={rest} />
		</section>
	);
}
