import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take, type Working } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure, Figures } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { GhostPicture } from "./GhostPicture";

type Card = Schemas["SchemeCard"];
const SHAPES = [
	["best", "fewest lines"],
	["few rows", "few rows"],
	["left and right", "left and right apart"],
] as const;

/** All ways to read the keys of this brief, side by side; the recommended one with its reason. */
export function SchemeTable({ brain }: { brain: string }) {
	const { head } = useDesign();
	const [open, setOpen] = useState<string | null>(null);
	const query = useQuery({
		queryKey: ["project", head.project, "schemes", head.version, brain],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/schemes", {
					params: { path: { project_id: head.project }, query: { brain } },
				}),
			),
		placeholderData: (before) => before,
	});
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Comparing the ways.</p>;
	const cards = query.data.schemes;
	const best = cards.find((c) => c.recommended);
	const looked = cards.find((c) => c.name === open) ?? cards.find((c) => c.chosen);
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-3 py-2" data-testid="schemes">
			<table className="w-full text-[12px]">
				<thead>
					<tr className="border-b border-ink text-right text-ink-2 [&>th]:py-1 [&>th]:pl-3 [&>th]:font-normal">
						<th className="!pl-0 text-left">way</th>
						<th>pins</th>
						<th>parts</th>
						<th>price</th>
						<th>area</th>
						<th>scan</th>
						<th>at worst</th>
						<th>held</th>
						<th>current</th>
						<th className="pl-3 text-left">verdict</th>
						<th>
							<span className="sr-only">choose</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{cards.map((card) => (
						<Row key={card.name} card={card} open={looked?.name === card.name} show={() => setOpen(card.name)} />
					))}
				</tbody>
			</table>
			{best && (
				<p className="mt-2 flex gap-2" data-testid="recommended">
					<Sign kind="clear" />
					<span>
						<span className="font-medium">Recommended: {best.title.toLowerCase()}.</span> {best.reason}
					</span>
				</p>
			)}
			<div className="mt-3 grid grid-cols-2 gap-6 border-t border-rule pt-3">
				{looked && <Looked card={looked} />}
				<div>
					<h2 className="mb-1 font-semibold">Sums on buses and axes</h2>
					<Figures workings={query.data.sums} />
					{query.data.sums.length === 0 && <p className="text-ink-2">Nothing to add up.</p>}
				</div>
			</div>
		</div>
	);
}

const working = (card: Card, part: string): Working | undefined =>
	card.workings.find((w) => w.id === `scheme.${card.name}.${part}`);

function Cell({ card, part }: { card: Card; part: string }) {
	const found = working(card, part);
	return <td className="py-1 pl-3 text-right whitespace-nowrap">{found && <Figure working={found} />}</td>;
}

function Row({ card, open, show }: { card: Card; open: boolean; show: () => void }) {
	const { edit } = useDesign();
	const good = card.fits && card.reads_chords;
	const verdict = !card.fits ? "does not fit" : !card.reads_chords ? `${card.ghosts} chords read wrongly` : "fits";
	return (
		<tr
			data-scheme={card.name}
			data-fits={card.fits}
			className={`border-b border-rule align-top ${open ? "bg-board/50" : ""}`}
		>
			<td className="py-1">
				<button type="button" className="text-left font-medium hover:underline" onClick={show}>
					{card.title}
				</button>
				{card.recommended && <span className="ml-1 font-medium">recommended</span>}
				<span className="block text-ink-2">{card.shape}</span>
			</td>
			<Cell card={card} part="pins" />
			<Cell card={card} part="parts" />
			<Cell card={card} part="price" />
			<Cell card={card} part="area" />
			<Cell card={card} part="scan" />
			<Cell card={card} part="latency" />
			<Cell card={card} part="held" />
			<Cell card={card} part="current" />
			<td className="py-1 pl-3" title={card.why_not}>
				<span className="flex items-center gap-1.5">
					<Sign kind={good ? "clear" : card.fits ? "look" : "stop"} size={11} />
					{verdict}
				</span>
			</td>
			<td className="py-0.5 text-right">
				{card.chosen ? (
					<span className="text-ink-2">chosen</span>
				) : (
					<Button className="!py-0" onClick={() => void edit({ kind: "set-scheme", scheme: card.name })}>
						Use it
					</Button>
				)}
			</td>
		</tr>
	);
}

/** Which key sits where in the matrix. */
function Cells({ card }: { card: Card }) {
	const { head } = useDesign();
	const rows = Math.max(...card.cells.map((c) => c[1])) + 1;
	const columns = Math.max(...card.cells.map((c) => c[2])) + 1;
	const key = (row: number, column: number) => {
		const id = card.cells.find((c) => c[1] === row && c[2] === column)?.[0];
		return (head.keys.find((k) => k.id === id)?.title ?? "").replace("button ", "");
	};
	const word = card.name === "charlieplexed" ? ["line", "line"] : ["row", "column"];
	return (
		<table className="mt-1 border-collapse text-[12px]">
			<tbody>
				<tr>
					<td />
					{[...Array(columns).keys()].map((c) => (
						<td key={c} className="px-1.5 text-ink-2">
							{word[1]} {c + 1}
						</td>
					))}
				</tr>
				{[...Array(rows).keys()].map((r) => (
					<tr key={r}>
						<td className="pr-1.5 whitespace-nowrap text-ink-2">
							{word[0]} {r + 1}
						</td>
						{[...Array(columns).keys()].map((c) => (
							<td key={c} className="border border-rule px-1.5 py-0.5">
								{key(r, c)}
							</td>
						))}
					</tr>
				))}
			</tbody>
		</table>
	);
}

function Looked({ card }: { card: Card }) {
	const { head, edit } = useDesign();
	const scheme = head.brief.key_scheme;
	const lines = card.name.includes("matrix") || card.name === "mixed";
	return (
		<div>
			<h2 className="mb-1 font-semibold">{card.title}</h2>
			<p className="text-[12px] text-ink-2">
				{card.parts.length ? `Adds ${card.parts.map((p) => `${p.count} x ${p.title}`).join(", ")}.` : "Adds no parts."}{" "}
				{card.why_not}
			</p>
			{card.chosen && lines && (
				<p className="mt-1 flex items-center gap-2 text-[12px]">
					<span className="text-ink-2">shape</span>
					{SHAPES.map(([shape, words]) => (
						<label key={shape} className="flex items-center gap-1">
							<input
								type="radio"
								name="shape"
								className="accent-patina"
								checked={(scheme?.shape ?? "best") === shape}
								onChange={() =>
									void edit({ kind: "set-scheme", scheme: { name: card.name, shape, direct: [], diodes: [] } })
								}
							/>
							{words}
						</label>
					))}
				</p>
			)}
			{card.cells.length > 0 && <Cells card={card} />}
			{card.ghost ? (
				<GhostPicture card={card} />
			) : (
				<p className="mt-1 flex items-center gap-1.5 text-[12px]">
					<Sign kind="clear" size={11} /> Every chord of this device is read rightly.
				</p>
			)}
		</div>
	);
}
