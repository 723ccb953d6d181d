import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Coming } from "../../app/Coming";
import { useReckoner } from "../../app/reckoner";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";

type View = Schemas["CircuitView"];
type Component = Schemas["ComponentView"];

const TITLES: Record<string, string> = {
	chip: "Chip core",
	module: "Ready module",
	power: "Sources to rails",
	buttons: "Controls",
	axes: "Axes outside the chip",
	bus: "Two-wire bus",
	crystal: "Crystals",
	screen: "Screen",
	buzzer: "Sounder",
	light: "Indicator light",
	lights: "Lights in chains and fields",
	sound: "Sound",
	senses: "Sensors",
	card: "Memory card",
	ports: "Ports",
	link: "Links between boards",
	service: "Programming and test",
};

/** The blocks that this circuit has: those that have a title in its order, then any other. */
function blocksOf(view: View): [string, string][] {
	const there = new Set(view.components.map((c) => c.block));
	const named = Object.keys(TITLES).filter((block) => there.has(block));
	const others = [...there].filter((block) => !(block in TITLES));
	return [...named, ...others].map((block) => [block, TITLES[block] ?? block[0]?.toUpperCase() + block.slice(1)]);
}

/** Components by block with the workings beside them, and the nets. */
export function CircuitStation() {
	const { head, start, jobs } = useDesign();
	const [net, setNet] = useState<string | null>(null);
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
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex items-center gap-3 border-b border-rule px-4 py-2">
				<span>
					<span className="figure">{view.components.length}</span> <span className="text-ink-2">components,</span>{" "}
					<span className="figure">{view.nets.length}</span> <span className="text-ink-2">nets</span>
				</span>
				{stale && (
					<span className="text-look">
						{view.components.length ? "drawn from an earlier pin plan" : "not made yet"}
					</span>
				)}
				<span className="flex-1" />
				<Button
					disabled={jobs.some((j) => j.kind === "circuit")}
					onClick={() => void start("circuit")}
					data-testid="make-circuit"
				>
					{stale ? "Make the circuit" : "Make it again"}
				</Button>
			</div>
			{view.components.length === 0 ? (
				<Coming title="Parts and nets will stand here" until="circuit">
					<Wanted />
				</Coming>
			) : (
				<div className="flex min-h-0 flex-1">
					<div className="min-w-0 flex-1 overflow-y-auto px-4 py-3">
						{blocksOf(view).map(([block, title]) => (
							<Block key={block} block={block} title={title} view={view} net={net} pick={setNet} />
						))}
						<Further view={view} />
					</div>
					<NetList view={view} net={net} pick={setNet} />
				</div>
			)}
		</div>
	);
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
					<span className="text-[12px] text-ink-2">
						{thing.drawn_yet ? thing.title.toLowerCase() : "no circuit recipe yet"}
					</span>
				</li>
			))}
		</ul>
	);
}

const WORKINGS: Record<string, string> = {
	chip: "chip.",
	power: "power.",
	buttons: "buttons.",
	screen: "screen.",
	buzzer: "buzzer.",
	light: "light.",
};

/** Figures that belong to no single block: those of sources, ports and crystals by their own names. */
function Further({ view }: { view: View }) {
	const prefixes = Object.values(WORKINGS);
	const rest = view.workings.filter((w) => !prefixes.some((prefix) => w.id.startsWith(prefix)));
	if (rest.length === 0) return null;
	return (
		<section className="mb-5" aria-label="Further figures">
			<h2 className="mb-2 border-b-2 border-ink pb-1 font-semibold">Further figures</h2>
			<div className="max-w-[480px]">
				<Figures workings={rest} />
			</div>
		</section>
	);
}

function Block({
	block,
	title,
	view,
	net,
	pick,
}: {
	block: string;
	title: string;
	view: View;
	net: string | null;
	pick: (net: string) => void;
}) {
	const components = view.components.filter((c) => c.block === block);
	if (components.length === 0) return null;
	const prefix = WORKINGS[block];
	const workings = view.workings.filter((w) => prefix && w.id.startsWith(prefix));
	return (
		<section className="mb-5" aria-label={title}>
			<h2 className="border-b-2 border-ink pb-1 font-semibold">{title}</h2>
			{workings.length > 0 && (
				<div className="my-2 max-w-[380px]">
					<Figures workings={workings} />
				</div>
			)}
			<table className="w-full">
				<tbody>
					{components.map((component) => (
						<Row key={component.ref} component={component} net={net} pick={pick} />
					))}
				</tbody>
			</table>
		</section>
	);
}

function Row({ component, net, pick }: { component: Component; net: string | null; pick: (net: string) => void }) {
	const reckon = useReckoner();
	const several = useDesign().head.boards.length > 1;
	return (
		<tr
			className="border-b border-rule align-top"
			onPointerEnter={() => reckon(`${component.ref} ${component.description}; ${component.evidence}`)}
		>
			<td className="figure w-[46px] py-1 font-medium">{component.ref}</td>
			<td className="w-[262px] py-1 pr-2">
				{component.purpose}
				{several && <span className="text-[12px] whitespace-nowrap text-ink-2"> on {component.board}</span>}
				<span className="block text-[12px] text-ink-2">{component.size}</span>
			</td>
			<td className="figure w-[76px] py-1 pr-3 text-right whitespace-nowrap">
				{component.block === "buttons" && component.part.startsWith("button") ? "" : shortValue(component)}
			</td>
			<td className="py-1">
				{component.pads.length > 12 ? (
					<span className="text-[12px] text-ink-2">{component.pads.length} pins connected; see the Pins station</span>
				) : (
					component.pads.map(([pad, name, on]) => (
						<button
							key={pad}
							type="button"
							onClick={() => pick(on)}
							className={`figure mr-2 inline-block text-[12px] hover:underline ${net === on ? "font-medium text-patina underline" : ""}`}
						>
							<span className="text-ink-2">{name || pad}</span> {on}
						</button>
					))
				)}
			</td>
		</tr>
	);
}

function shortValue(component: Component): string {
	return component.value === component.description ? "" : component.value.length > 9 ? "" : component.value;
}

function NetList({ view, net, pick }: { view: View; net: string | null; pick: (net: string | null) => void }) {
	const [words, setWords] = useState("");
	const nets = view.nets.filter((n) =>
		`${n.name} ${n.pads.map((p) => p[0]).join(" ")}`.toLowerCase().includes(words.toLowerCase()),
	);
	return (
		<section aria-label="Nets" className="flex w-[250px] shrink-0 flex-col border-l border-rule">
			<input
				aria-label="Search nets"
				placeholder="net or part"
				className="m-3 border border-line bg-card px-2 py-1"
				value={words}
				onChange={(event) => setWords(event.target.value)}
			/>
			<ul className="min-h-0 flex-1 overflow-y-auto">
				{nets.map((row) => (
					<li key={row.name} className={`border-b border-rule px-3 py-1 ${net === row.name ? "bg-board/60" : ""}`}>
						<button
							type="button"
							className="flex w-full justify-between"
							onClick={() => pick(net === row.name ? null : row.name)}
						>
							<span className="figure">{row.name}</span>
							<span className="figure text-ink-2">{row.pads.length}</span>
						</button>
						{net === row.name && (
							<p className="figure text-[12px] text-ink-2">
								{row.pads.map(([ref, pad]) => `${ref}.${pad}`).join("  ")}
							</p>
						)}
					</li>
				))}
			</ul>
		</section>
	);
}
