import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import { BoardTabs } from "./BoardTabs";
import type { Hand, Outlining } from "./looks";

const HOWS = [
	["row", "Same height"],
	["column", "Same column"],
	["spread across", "Spread across"],
	["spread up", "Spread up"],
] as const;
const HANDS: Hand[] = ["none", "small", "medium", "large"];

/** What can be done with the things that are picked, the boards, and the reach of a hand. */
export function GroupBar({
	selected,
	select,
	hand,
	setHand,
	board,
	show,
	outlining,
	outline,
}: {
	selected: string[];
	select: (names: string[]) => void;
	hand: Hand;
	setHand: (hand: Hand) => void;
	board: string;
	show: (board: string) => void;
	outlining: Outlining;
	outline: (how: Outlining) => void;
}) {
	const { head, edit } = useDesign();
	const keys = head.keys.filter((key) => selected.includes(key.thing));
	const named = (names: string[]) => head.brief.things?.filter((thing) => names.includes(thing.name)) ?? [];
	const hold = () =>
		void edit({
			kind: "set-chords",
			chords: { rule: "own", at_once: 6, groups: [...(head.brief.chords?.groups ?? []), keys.map((k) => k.id)] },
		});
	return (
		<div
			className="flex min-h-[36px] flex-wrap items-center gap-1.5 border-b border-rule px-3 text-[12px]"
			data-testid="group-bar"
		>
			{selected.length < 2 && <BoardTabs board={board} show={show} />}
			{selected.length === 0 && (
				<>
					<Button
						className="!py-0"
						data-testid="shape-outline"
						aria-pressed={outlining === "shape"}
						onClick={() => outline(outlining === "shape" ? "no" : "shape")}
					>
						{outlining === "shape" ? "Outline is done" : "Shape the outline"}
					</Button>
					<Button
						className="!py-0"
						data-testid="outline-from-drawing"
						aria-pressed={outlining === "drawing"}
						onClick={() => outline(outlining === "drawing" ? "no" : "drawing")}
					>
						From a drawing
					</Button>
				</>
			)}
			{selected.length > 1 && (
				<>
					<span className="mr-1 whitespace-nowrap">
						<span className="figure">{selected.length}</span> picked
					</span>
					{HOWS.map(([how, words]) => (
						<Button
							key={how}
							className="!px-1.5 !py-0"
							onClick={() => void edit({ kind: "arrange-things", names: selected, how })}
						>
							{words}
						</Button>
					))}
				</>
			)}
			{selected.length > 0 && (
				<>
					<Button
						className="!px-1.5 !py-0"
						title="A copy on the other half, names changed left to right"
						onClick={() => void edit({ kind: "mirror-things", names: selected })}
					>
						Mirror
					</Button>
					<Button
						className="!px-1.5 !py-0"
						title="A copy 10 mm beside it"
						onClick={() => void edit({ kind: "paste-things", things: named(selected), board: "", dx_mm: 10, dy_mm: 0 })}
					>
						Copy
					</Button>
				</>
			)}
			{selected.length > 1 && keys.length > 1 && (
				<Button
					className="!px-1.5 !py-0"
					title="These keys must be readable together: adds them to the chords of this device"
					onClick={hold}
				>
					Held together
				</Button>
			)}
			{selected.length > 1 && (
				<Button weight="quiet" onClick={() => select([])}>
					Let go
				</Button>
			)}
			<span className="flex-1" />
			<label className="flex items-center gap-1" title={head.reach_source}>
				<span className="text-ink-2">reach</span>
				<select
					aria-label="Thumb reach"
					className="border border-line bg-card px-1 py-0.5"
					value={hand}
					onChange={(event) => setHand(event.target.value as Hand)}
				>
					{HANDS.map((name) => (
						<option key={name} value={name}>
							{name === "none" ? "hidden" : `${name} hand`}
						</option>
					))}
				</select>
			</label>
		</div>
	);
}
