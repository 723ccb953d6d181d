import type { Schemas } from "../../api/client";
import { Choice } from "../../design/Choice";
import { Figures } from "../../design/Figure";
import { NumberField } from "../../design/NumberField";
import { useDesign } from "../../document/useDesign";
import { type Line, type Stack, through } from "./stack";

type Choices = Schemas["StackChoices"];
const PROCESSES: [NonNullable<Choices["process"]>, string][] = [
	["filament", "printed by filament"],
	["resin", "printed in resin"],
	["sintered", "sintered"],
	["laser", "cut by laser"],
	["milled", "milled"],
];

const SCREW = { thread_mm: 2.2, head_mm: 4, head_high_mm: 1.6 };
const OWN: [keyof typeof SCREW, string][] = [
	["thread_mm", "Thread across"],
	["head_mm", "Head across"],
	["head_high_mm", "Head high"],
];

/** How the shell is made and what it works out to: rooms, gaps, screws. */
export function Shell({ stack, cut }: { stack: Stack; cut: (line: Line) => void }) {
	const { head, edit } = useDesign();
	const choices = head.choices.stack as Choices;
	const { making } = head.brief;
	const own = choices.own_screw ?? SCREW;
	const set = (change: Partial<Choices>) => void edit({ kind: "set-stack", stack: { ...choices, ...change } });
	const room = (side: { near_room_mm?: number | null; far_room_mm?: number | null }) =>
		void edit({
			kind: "set-room",
			board: stack.board,
			near_room_mm: stack.near_said ? stack.near_room_mm : null,
			far_room_mm: stack.far_said ? stack.far_room_mm : null,
			...side,
		});
	return (
		<section aria-label="Shell" className="w-[272px] shrink-0 overflow-y-auto border-l border-rule px-3 py-2">
			<h2 className="border-b border-ink pb-1 font-semibold">Shell</h2>
			<div className="mt-2 flex flex-col gap-1">
				<NumberField
					label="Wall"
					unit="mm"
					value={choices.wall_mm ?? 2}
					set={(v) => v != null && set({ wall_mm: v })}
				/>
				<NumberField
					label="Round the edge"
					unit="mm"
					value={choices.side_gap_mm ?? 0.5}
					set={(v) => v != null && set({ side_gap_mm: v })}
				/>
				<NumberField
					label="Room near"
					unit="mm"
					empty
					value={stack.near_said ? stack.near_room_mm : null}
					set={(v) => room({ near_room_mm: v })}
				/>
				<NumberField
					label="Room far"
					unit="mm"
					empty
					value={stack.far_said ? stack.far_room_mm : null}
					set={(v) => room({ far_room_mm: v })}
				/>
				{!(stack.near_said && stack.far_said) && (
					<p className="text-[12px] text-ink-2">A room that is left empty is proposed from what stands there.</p>
				)}
				<Choice
					beside
					label="Made"
					value={choices.process ?? "filament"}
					options={PROCESSES}
					set={(process) => set({ process })}
				/>
				<Choice
					beside
					label="Board held"
					value={choices.fixing ?? "posts"}
					options={[
						["posts", "by screws into posts"],
						["through", "by screws from the back"],
					]}
					set={(fixing) => set({ fixing })}
				/>
				<Choice
					beside
					label="Heads"
					value={choices.heads ?? "pan"}
					options={[
						["pan", "pan"],
						["countersunk", "countersunk"],
						["own", "a screw of one's own"],
					]}
					set={(heads) => set({ heads })}
				/>
				{choices.heads === "own" &&
					OWN.map(([field, label]) => (
						<NumberField
							key={field}
							label={label}
							unit="mm"
							value={own[field] ?? 0}
							set={(v) => v != null && set({ own_screw: { ...own, [field]: v } })}
						/>
					))}
				{stack.pieces.some((piece) => piece.soft) && (
					<label className="flex items-center gap-2 text-[12px]">
						<input
							type="checkbox"
							checked={making.insulator}
							onChange={(event) =>
								void edit({ kind: "set-making", making: { ...making, insulator: event.target.checked } })
							}
						/>
						insulator of 1 mm at soft cells
					</label>
				)}
				{stack.loose.map((name) => (
					<NumberField
						key={name}
						label={name}
						unit="mm high"
						empty
						value={choices.heights_mm?.[name] ?? null}
						set={(height_mm) => void edit({ kind: "measure-height", thing: name, height_mm })}
					/>
				))}
			</div>
			<h2 className="mt-4 border-b border-ink pb-1 font-semibold">What it works out to</h2>
			<Figures workings={stack.workings} />
			<h2 className="mt-4 border-b border-ink pb-1 font-semibold">
				Tightest five <span className="font-normal text-ink-2">of {stack.gaps}</span>
			</h2>
			<ol className="text-[12px]" data-testid="tightest">
				{stack.tightest.map((gap, index) => (
					<li key={`${gap.one} ${gap.other}`} className="border-b border-rule">
						<button
							type="button"
							className="flex w-full gap-2 py-1 text-left hover:bg-card"
							title="Cut there"
							onClick={() => cut(through(stack, gap.x_mm, gap.y_mm, gap.way === "side by side"))}
						>
							<span className="figure text-ink-2">{index + 1}</span>
							<span className="flex-1">
								{gap.one} and {gap.other}
								<span className="block text-ink-2">{gap.way}</span>
							</span>
							<span className={`figure whitespace-nowrap ${gap.mm < gap.least_mm ? "font-medium text-stop" : ""}`}>
								{gap.mm.toFixed(2)} mm
								<span className="block text-right text-ink-2">of {gap.least_mm.toFixed(1)}</span>
							</span>
						</button>
					</li>
				))}
			</ol>
			{stack.screws.length > 0 && <Screws stack={stack} />}
		</section>
	);
}

function Screws({ stack }: { stack: Stack }) {
	return (
		<>
			<h2 className="mt-4 border-b border-ink pb-1 font-semibold">Screws</h2>
			<table className="w-full text-[12px]" data-testid="screws">
				<tbody>
					{stack.screws.map((screw) => (
						<tr key={screw.thing} className="border-b border-rule align-top">
							<td className="py-1 pr-2">{screw.thing}</td>
							<td className="figure py-1 text-right whitespace-nowrap">
								{screw.thread} x {screw.length_mm ?? "?"} mm
								<span className="block text-ink-2">post {screw.post_mm.toFixed(1)} mm</span>
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</>
	);
}
