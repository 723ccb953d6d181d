/** Snapping and aligning while the hand moves something; all in millimetres. */
export type Point = { x: number; y: number };

export const snap = (value: number, step: number): number => Math.round(Math.round(value / step) * step * 1000) / 1000;

/** A point on the lattice, drawn onto the line of another thing where it comes within `reach`. */
export function settle(
	point: Point,
	others: Point[],
	step: number,
	reach: number,
): { point: Point; lineX: number | null; lineY: number | null } {
	const lineX = nearest(
		point.x,
		others.map((o) => o.x),
		reach,
	);
	const lineY = nearest(
		point.y,
		others.map((o) => o.y),
		reach,
	);
	return { point: { x: lineX ?? snap(point.x, step), y: lineY ?? snap(point.y, step) }, lineX, lineY };
}

function nearest(value: number, lines: number[], reach: number): number | null {
	let best: number | null = null;
	for (const line of lines)
		if (Math.abs(line - value) <= reach && (best === null || Math.abs(line - value) < Math.abs(best - value)))
			best = line;
	return best;
}
