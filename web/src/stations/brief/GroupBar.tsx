import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import type { Hand } from "./BriefStation";
import { roleOf } from "./controlKinds";

const HOWS = [
	["row", "Same height"],
	["column", "Same column"],
	["spread across", "Spread across"],
	["spread up", "Spread up"],
] as const;
const HANDS: Hand[] = ["none", "small", "medium", "large"];

/** What can be done with the controls that are picked, and the reach of a hand. */
export function GroupBar({
	selected,
	select,
	hand,
	setHand,
}: {
	selected: string[];
	select: (things: string[]) => void;
	hand: Hand;
	setHand: (hand: Hand) => void;
}) {
	const { head, edit } = useDesign();
	const names = head.brief.controls.filter((c) => selected.includes(roleOf(c))).map((c) => c.name);
	const keys = head.keys.filter((k) => selected.some((role) => k.id === role || k.id.startsWith(`${role}:`)));
	const hold = () =>
		void edit({
			kind: "set-chords",
			chords: { rule: "own", at_once: 6, groups: [...(head.brief.chords?.groups ?? []), keys.map((k) => k.id)] },
		});
	return (
		<div className="flex h-[34px] items-center gap-1.5 border-b border-rule px-3 text-[12px]" data-testid="group-bar">
			{names.length === 0 && <span className="text-ink-2">Hold Shift to pick several controls.</span>}
			{names.length === 1 && <span className="text-ink-2">{names[0]} picked; hold Shift to pick more.</span>}
			{names.length > 1 && (
				<>
					<span className="mr-1">
						<span className="figure">{names.length}</span> picked
					</span>
					{HOWS.map(([how, words]) => (
						<Button key={how} className="!py-0" onClick={() => void edit({ kind: "arrange-controls", names, how })}>
							{words}
						</Button>
					))}
				</>
			)}
			{names.length > 0 && (
				<Button
					className="!py-0"
					title="A copy on the other half, names changed left to right"
					onClick={() => void edit({ kind: "mirror-controls", names })}
				>
					Mirror
				</Button>
			)}
			{names.length > 1 && keys.length > 1 && (
				<Button
					className="!py-0"
					title="These keys must be readable together: adds them to the chords of this device"
					onClick={hold}
				>
					Held together
				</Button>
			)}
			{names.length > 1 && (
				<Button weight="quiet" onClick={() => select([])}>
					Let go
				</Button>
			)}
			<span className="flex-1" />
			<label className="flex items-center gap-1" title={head.reach_source}>
				<span className="text-ink-2">thumb reach</span>
				<select
					aria-label="Thumb reach"
					className="border border-[#b9b09c] bg-card px-1 py-0.5"
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
