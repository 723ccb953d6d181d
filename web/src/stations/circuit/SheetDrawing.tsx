import { type KeyboardEvent, memo } from "react";
import { colourOf, type Lit, saidMa, saidVolts, widthOf } from "./lit";
import { type Component, type Picked, type Sheet, titleOf } from "./picked";

const FINE = 0.22;
const BOLD = 0.5;
const GRASP = 1.6;
const BELOW = 1.05;
const SMALLER = 0.9;

/** One block drawn in mm, at so many pixels a mm. Nets and parts carry their names; lighting them is done on the page, without drawing anew. */
export const SheetDrawing = memo(function SheetDrawing({
	sheet,
	scale,
	parts,
	pick,
	lit = null,
}: {
	sheet: Sheet;
	scale: number;
	parts: ReadonlyMap<string, Component>;
	pick: (picked: Picked) => void;
	lit?: Lit | null;
}) {
	const stroke = (net: string, bold: boolean) => {
		const node = lit?.nodes.get(net);
		if (!lit || !node) return { stroke: "currentColor", strokeWidth: bold ? BOLD : FINE };
		return { stroke: colourOf(node.volts, lit.most), strokeWidth: Math.max(bold ? BOLD : FINE, widthOf(node.ma)) };
	};
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
					{...stroke(s.net, s.bold)}
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
					{w.bold && beside(w, lit) && (
						<tspan dx={1} data-net={w.net} className="figure" fontWeight={400} fill={beside(w, lit)?.fill}>
							{beside(w, lit)?.said}
						</tspan>
					)}
				</text>
			))}
			{words.map((w) => {
				const volts = w.bold ? null : beside(w, lit);
				return (
					volts && (
						<text
							key={`volts ${w.text} ${w.x} ${w.y}`}
							data-net={w.net}
							x={w.x}
							y={w.y + BELOW * w.size}
							fontSize={w.size * SMALLER}
							textAnchor={w.anchor}
							className="figure"
							fill={volts.fill}
						>
							{volts.said}
						</text>
					)
				);
			})}
			{lit && spots.map((spot) => <LoadBar key={`load ${spot.ref}`} spot={spot} lit={lit} />)}
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

/** The volts that stand at the name of a net: beside that of a supply, below that of a line. */
function beside(word: Sheet["drawn"]["words"][number], lit: Lit | null) {
	const node = word.text === word.net ? lit?.nodes.get(word.net) : undefined;
	return lit && node ? { said: saidVolts(node.volts), fill: colourOf(node.volts, lit.most) } : null;
}

const BAR = 5;

/** Below a part: how much of its nearest limit it is asked for. Over the limit it is a red bar with its figure. */
function LoadBar({ spot, lit }: { spot: Sheet["drawn"]["spots"][number]; lit: Lit }) {
	const load = lit.loads.get(spot.ref);
	if (!load || load.share < 0.005) return null;
	const over = load.share > 1;
	const x = spot.x + spot.w / 2 - BAR / 2;
	const y = spot.y + spot.h + 0.5;
	return (
		<g className={over ? "text-stop" : "text-ink-2"} data-over={over || undefined}>
			<rect x={x} y={y} width={BAR} height={0.7} fill="none" stroke="currentColor" strokeWidth={0.12} />
			<rect x={x} y={y} width={BAR * Math.min(1, load.share)} height={0.7} fill="currentColor" />
			{over && (
				<>
					<rect
						x={spot.x - 0.6}
						y={spot.y - 0.6}
						width={spot.w + 1.2}
						height={spot.h + 1.2}
						fill="none"
						stroke="currentColor"
						strokeWidth={0.4}
						strokeDasharray="1.4 0.7"
					/>
					<text
						x={spot.x + spot.w / 2}
						y={y + 3}
						fontSize={2.2}
						textAnchor="middle"
						fill="currentColor"
						className="figure"
					>
						{load.unit === "mA" ? saidMa(load.amount) : `${load.amount.toPrecision(3)} ${load.unit}`} of {load.limit}
					</text>
				</>
			)}
		</g>
	);
}
