import { useState } from "react";
import type { Edit, Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { NumberField } from "../../design/NumberField";
import { useDesign } from "../../document/useDesign";
import { middleOf, type Picked } from "./outline";

type Shaping = Extract<Edit, { kind: "shape-outline" }>["by"];

/** The picked side or corner of an outline in caliper values. */
export function OutlineForm({
	board,
	picked,
	pick,
}: {
	board: Schemas["BoardOutline"];
	picked: Picked | null;
	pick: (picked: Picked | null) => void;
}) {
	const { head, edit } = useDesign();
	const drawing = `/api/projects/${head.project}/boards/${board.folder}/outline`;
	const by = async (change: Shaping, then: Picked | null = picked) => {
		if (await edit({ kind: "shape-outline", board: board.name, by: change })) pick(then);
	};
	return (
		<div className="flex flex-col gap-1.5 border-t border-rule pt-3" data-testid="outline-form">
			<h2 className="font-semibold">Outline of {board.name}</h2>
			{picked && "side" in picked && board.sides[picked.side] ? (
				<Side board={board} index={picked.side} by={by} />
			) : picked && "corner" in picked && board.sides[picked.corner] ? (
				<Corner board={board} index={picked.corner} by={by} />
			) : (
				<p className="text-[12px] text-ink-2">
					Drag a corner, or press the length of a side to type what the calipers say.
				</p>
			)}
			<p className="text-[12px]">
				At true size, from the near side:{" "}
				<a className="text-patina hover:underline" href={`${drawing}.dxf`} download>
					DXF
				</a>
				,{" "}
				<a className="text-patina hover:underline" href={`${drawing}.svg`} download>
					SVG
				</a>
			</p>
		</div>
	);
}

type Part = {
	board: Schemas["BoardOutline"];
	index: number;
	by: (change: Shaping, then?: Picked | null) => Promise<void>;
};

function Side({ board, index, by }: Part) {
	const side = board.sides[index];
	const [notch, setNotch] = useState({ from: 5, width: 6, depth: 3 });
	if (!side) return null;
	const middle = middleOf(board.sides, index);
	return (
		<>
			<p className="text-[12px] text-ink-2">
				Side {index + 1} of {board.sides.length}
				{side.rise_mm ? ", an arc" : ". What lies beyond its end moves along with it."}
			</p>
			{side.rise_mm === 0 && (
				<NumberField
					label="Length"
					unit="mm"
					value={side.length_mm}
					set={(v) => v != null && void by({ kind: "make-side", side: index, length_mm: v })}
				/>
			)}
			<NumberField
				label="Rises out"
				unit="mm"
				value={side.rise_mm}
				set={(v) => v != null && void by({ kind: "bend-side", side: index, rise_mm: v })}
			/>
			{side.rise_mm === 0 && (
				<>
					<NumberField
						label="Notch from"
						unit="mm"
						value={notch.from}
						set={(v) => v != null && setNotch({ ...notch, from: v })}
					/>
					<NumberField
						label="wide"
						unit="mm"
						value={notch.width}
						set={(v) => v != null && setNotch({ ...notch, width: v })}
					/>
					<NumberField
						label="deep"
						unit="mm"
						value={notch.depth}
						set={(v) => v != null && setNotch({ ...notch, depth: v })}
					/>
					<div className="flex flex-wrap gap-1">
						<Button
							className="!py-0"
							data-testid="cut-notch"
							onClick={() =>
								void by(
									{ kind: "cut-notch", side: index, from_mm: notch.from, width_mm: notch.width, depth_mm: notch.depth },
									null,
								)
							}
						>
							Cut the notch
						</Button>
						<Button
							className="!py-0"
							onClick={() =>
								void by({ kind: "add-corner", side: index, x_mm: middle.x, y_mm: middle.y }, { corner: index + 1 })
							}
						>
							Add a corner
						</Button>
					</div>
				</>
			)}
		</>
	);
}

function Corner({ board, index, by }: Part) {
	const corner = board.sides[index];
	const [radius, setRadius] = useState(4);
	if (!corner) return null;
	const put = (to: { x_mm?: number; y_mm?: number }) =>
		void by({ kind: "move-corner", index, x_mm: corner.x_mm, y_mm: corner.y_mm, ...to });
	return (
		<>
			<p className="text-[12px] text-ink-2">
				Corner {index + 1} of {board.sides.length}, from the lower left
			</p>
			<NumberField label="Across" unit="mm" value={corner.x_mm} set={(v) => v != null && put({ x_mm: v })} />
			<NumberField label="Up" unit="mm" value={corner.y_mm} set={(v) => v != null && put({ y_mm: v })} />
			<NumberField label="Radius" unit="mm" value={radius} set={(v) => v != null && setRadius(v)} />
			<div className="flex flex-wrap gap-1">
				<Button className="!py-0" onClick={() => void by({ kind: "round-corner", index, radius_mm: radius }, null)}>
					Cut it round
				</Button>
				<Button className="!py-0" onClick={() => void by({ kind: "remove-corner", index }, null)}>
					Remove it
				</Button>
			</div>
		</>
	);
}
