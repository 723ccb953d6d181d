import { type KeyboardEvent, memo } from "react";
import { type Component, type Picked, type Sheet, titleOf } from "./picked";

const FINE = 0.22;
const BOLD = 0.5;
const GRASP = 1.6;

/** One block drawn in mm, at so many pixels a mm. Nets and parts carry their names; lighting them is done on the page, without drawing anew. */
export const SheetDrawing = memo(function SheetDrawing({
	sheet,
	scale,
	parts,
	pick,
}: {
	sheet: Sheet;
	scale: number;
	parts: ReadonlyMap<string, Component>;
	pick: (picked: Picked) => void;
}) {
	const { width_mm: wide, height_mm: tall } = sheet;
	const { paths, words, spots } = sheet.drawn;
	const onKey = (event: KeyboardEvent, ref: string) => {
		if (event.key !== "Enter" && event.key !== " ") return;
		event.preventDefault();
		pick({ kind: "part", name: ref });
	};
	return (
		<svg
			width={wide * scale}
			height={tall * scale}
			viewBox={`0 0 ${wide} ${tall}`}
			className="overflow-visible text-ink"
			role="group"
			aria-label={`Drawing of ${sheet.title}`}
		>
			{paths.map((s) => (
				<path
					key={`${s.net} ${s.ref} ${s.bold} ${s.filled}`}
					d={s.d}
					data-net={s.net || undefined}
					data-part={s.ref || undefined}
					fill={s.filled ? "currentColor" : "none"}
					stroke="currentColor"
					strokeWidth={s.bold ? BOLD : FINE}
					strokeLinejoin="round"
				/>
			))}
			{words.map((w) => (
				<text
					key={`${w.text} ${w.x} ${w.y}`}
					x={w.x}
					y={w.y}
					fontSize={w.size}
					textAnchor={w.anchor}
					fontWeight={w.bold ? 600 : 400}
					fill="currentColor"
					className={w.quiet ? "text-ink-2" : undefined}
					data-net={w.net || undefined}
					data-part={w.ref || undefined}
				>
					{w.text}
				</text>
			))}
			{paths
				.filter((s) => s.net)
				.map((s) => (
					<path
						key={`grasp ${s.net} ${s.bold} ${s.filled}`}
						d={s.d}
						data-grasp={s.net}
						fill="none"
						stroke="transparent"
						strokeWidth={GRASP}
						className="cursor-pointer"
						onClick={() => pick({ kind: "net", name: s.net })}
					/>
				))}
			{spots.map((spot) => {
				const part = parts.get(spot.ref);
				return (
					<rect
						key={spot.ref}
						x={spot.x}
						y={spot.y}
						width={spot.w}
						height={spot.h}
						fill="transparent"
						role="button"
						tabIndex={0}
						aria-label={part ? `${titleOf(part)}: ${part.purpose}` : spot.ref}
						data-press={spot.ref}
						className="cursor-pointer"
						onClick={() => pick({ kind: "part", name: spot.ref })}
						onKeyDown={(event) => onKey(event, spot.ref)}
					/>
				);
			})}
		</svg>
	);
});
