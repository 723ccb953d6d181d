import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useReckoner } from "../../app/reckoner";
import { snap } from "../../canvas/snapping";
import { useDesign } from "../../document/useDesign";
import { middleOf, type Picked } from "./outline";

type Spot = { x: number; y: number };

/** Corners and sides of an outline as handles: a corner is dragged, a side is picked by its length. */
export function OutlineHandles({
	board,
	h,
	px,
	picked,
	pick,
	toMm,
}: {
	board: Schemas["BoardOutline"];
	h: number;
	px: number;
	picked: Picked | null;
	pick: (picked: Picked | null) => void;
	toMm: (event: { clientX: number; clientY: number }) => Spot;
}) {
	const { edit } = useDesign();
	const reckon = useReckoner();
	const [drag, setDrag] = useState<(Spot & { corner: number }) | null>(null);
	const held = useRef<(Spot & { corner: number; moved: boolean }) | null>(null);
	const sides = board.sides;
	const begin = (event: PointerEvent, corner: number) => {
		event.stopPropagation();
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		pick({ corner });
		const side = sides[corner];
		held.current = { corner, x: side?.x_mm ?? 0, y: side?.y_mm ?? 0, moved: false };
	};
	const move = (event: PointerEvent) => {
		if (!held.current) return;
		event.stopPropagation();
		const at = toMm(event);
		held.current = { ...held.current, x: snap(at.x, 0.5), y: snap(at.y, 0.5), moved: true };
		setDrag(held.current);
		reckon(`Corner ${held.current.corner + 1} at ${held.current.x.toFixed(2)}, ${held.current.y.toFixed(2)} mm`);
	};
	const end = async (event: PointerEvent) => {
		event.stopPropagation();
		const done = held.current;
		held.current = null;
		if (done?.moved)
			await edit({
				kind: "shape-outline",
				board: board.name,
				by: { kind: "move-corner", index: done.corner, x_mm: done.x, y_mm: done.y },
			});
		setDrag(null);
	};
	const neighbours = drag && [
		sides[(drag.corner + sides.length - 1) % sides.length],
		sides[(drag.corner + 1) % sides.length],
	];
	return (
		<g data-testid="outline-handles">
			{sides.map((side, index) => {
				const next = sides[(index + 1) % sides.length];
				const on = picked && "side" in picked && picked.side === index;
				const middle = middleOf(sides, index);
				const label = side.length_mm.toFixed(2);
				if (!next) return null;
				return (
					<g
						// biome-ignore lint/suspicious/noArrayIndexKey: a side is its number
						key={index}
						role="button"
						tabIndex={0}
						aria-label={`Side ${index + 1}, ${label} mm`}
						aria-pressed={on ?? false}
						data-side={index}
						className="cursor-pointer outline-none focus-visible:[&_rect]:stroke-ink"
						onPointerDown={(event) => {
							event.stopPropagation();
							pick({ side: index });
						}}
						onKeyDown={(event) => event.key === "Enter" && pick({ side: index })}
					>
						{side.rise_mm === 0 && (
							<line
								x1={side.x_mm}
								y1={h - side.y_mm}
								x2={next.x_mm}
								y2={h - next.y_mm}
								stroke={on ? "var(--color-patina)" : "transparent"}
								strokeWidth={on ? 3 * px : 9 * px}
							/>
						)}
						{side.length_mm > label.length * 7 * px || on ? (
							<>
								<rect
									x={middle.x - (label.length * 3.6 + 4) * px}
									y={h - middle.y - 8 * px}
									width={(label.length * 7.2 + 8) * px}
									height={16 * px}
									rx={3 * px}
									fill={on ? "var(--color-patina)" : "var(--color-card)"}
									stroke="var(--color-patina)"
									strokeWidth={px}
								/>
								<text
									x={middle.x}
									y={h - middle.y + 4 * px}
									fontSize={11 * px}
									textAnchor="middle"
									className="figure"
									fill={on ? "#fff" : "var(--color-ink)"}
								>
									{label}
								</text>
							</>
						) : (
							<circle
								cx={middle.x}
								cy={h - middle.y}
								r={3.5 * px}
								fill="var(--color-card)"
								stroke="var(--color-patina)"
								strokeWidth={px}
							/>
						)}
					</g>
				);
			})}
			{drag &&
				neighbours?.map(
					(end, index) =>
						end && (
							<line
								// biome-ignore lint/suspicious/noArrayIndexKey: one before, one behind
								key={index}
								x1={end.x_mm}
								y1={h - end.y_mm}
								x2={drag.x}
								y2={h - drag.y}
								stroke="var(--color-patina)"
								strokeWidth={px}
								strokeDasharray={`${5 * px} ${3 * px}`}
							/>
						),
				)}
			{sides.map((side, index) => {
				const on = picked && "corner" in picked && picked.corner === index;
				const at = drag?.corner === index ? drag : { x: side.x_mm, y: side.y_mm };
				return (
					<rect
						// biome-ignore lint/suspicious/noArrayIndexKey: a corner is its number
						key={index}
						role="button"
						tabIndex={0}
						aria-label={`Corner ${index + 1} at ${side.x_mm.toFixed(2)}, ${side.y_mm.toFixed(2)} mm`}
						aria-pressed={on ?? false}
						data-corner={index}
						x={at.x - 5 * px}
						y={h - at.y - 5 * px}
						width={10 * px}
						height={10 * px}
						fill={on ? "var(--color-patina)" : "var(--color-card)"}
						stroke="var(--color-patina)"
						strokeWidth={1.5 * px}
						className="cursor-move outline-none focus-visible:stroke-ink"
						onPointerDown={(event) => begin(event, index)}
						onPointerMove={move}
						onPointerUp={(event) => void end(event)}
						onKeyDown={(event) => event.key === "Enter" && pick({ corner: index })}
					/>
				);
			})}
		</g>
	);
}
