import { useQuery } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { Coming } from "../../app/Coming";
import { walk } from "../../design/arrows";
import { Figures } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { Compartments, keyOf } from "./Compartments";
import { KitDrawer } from "./KitDrawer";
import { MeasuringDrawer } from "./MeasuringDrawer";
import { OneLine } from "./OneLine";
import { PlugsDrawer } from "./PlugsDrawer";
import { ShelfDrawer } from "./ShelfDrawer";
import { ToBuy } from "./ToBuy";

type Drawer = "board" | "shelf" | "sure" | "plugs" | "box" | "buy";

/** A bench of drawers: what is on the boards, which parts serve, which pins have to be made sure of, what goes into the box, and what is still to buy. */
export function PartsStation() {
	const { head } = useDesign();
	const [drawer, setDrawer] = useKept<Drawer>("drawer", "board");
	const [picked, setPicked] = useKept("picked line", "");
	const query = useQuery({
		queryKey: ["project", head.project, "parts", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/parts", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Opening the drawers.</p>;
	const { on_board: lines, kit, cards, ends, quantity } = query.data;
	const missing = kit.lines.filter((line) => line.state === "missing").length;
	const line = lines.find((row) => keyOf(row) === picked) ?? lines[0];
	const drawers: [Drawer, string, number | null][] = [
		["board", "On the board", lines.length],
		["shelf", "From the shelf", null],
		["sure", "To make sure of", cards.filter((card) => !card.confirmed).length],
		["plugs", "Plugs", ends.length],
		["box", "In the box", kit.lines.length],
		["buy", "To buy", lines.length + missing],
	];
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div role="radiogroup" aria-label="Drawer" className="flex gap-2 border-b border-rule px-4 py-2" onKeyDown={walk}>
				{drawers.map(([value, title, count]) => (
					<button
						key={value}
						type="button"
						role="radio"
						aria-checked={drawer === value}
						data-testid={`drawer-${value}`}
						className={`flex items-baseline gap-2 whitespace-nowrap rounded-t-[3px] border border-line px-3 py-1.5 ${drawer === value ? "border-b-[3px] border-b-copper bg-card font-semibold" : "bg-paper"}`}
						onClick={() => setDrawer(value)}
					>
						{title} {count !== null && <span className="figure font-normal text-ink-2">{count}</span>}
					</button>
				))}
				<span className="flex-1" />
				<span className="self-center text-[12px] text-ink-2">
					for {quantity} devices
					{head.stale.includes("circuit") && lines.length ? "; of the circuit as it was made last" : ""}
				</span>
			</div>
			{drawer === "box" && (
				<div className="flex min-h-0 flex-1">
					<KitDrawer lines={kit.lines} />
					<section aria-label="Wires" className="w-[260px] shrink-0 overflow-y-auto border-l border-rule p-4">
						<h2 className="border-b border-ink pb-1 font-semibold">Wires</h2>
						{kit.workings.length ? (
							<Figures workings={kit.workings} />
						) : (
							<p className="mt-2 text-ink-2">No leads to size.</p>
						)}
					</section>
				</div>
			)}
			{drawer === "board" &&
				(lines.length && line ? (
					<div className="flex min-h-0 flex-1">
						<Compartments lines={lines} picked={keyOf(line)} pick={setPicked} />
						<div className="flex w-[290px] shrink-0 border-l border-rule bg-card">
							<OneLine line={line} quantity={quantity} />
						</div>
					</div>
				) : (
					<Coming title="Parts will lie here, drawn at true size" until="circuit" />
				))}
			{drawer === "shelf" && <ShelfDrawer />}
			{drawer === "sure" && <MeasuringDrawer cards={cards} />}
			{drawer === "plugs" && <PlugsDrawer ends={ends} />}
			{drawer === "buy" && <ToBuy lines={lines} kit={kit.lines} />}
		</div>
	);
}
