import type { Schemas } from "../../api/client";

type Side = Schemas["OutlineSide"];
export type Picked = { corner: number } | { side: number };
export type Shaping = { picked: Picked | null; pick: (picked: Picked | null) => void };

/** The middle of a side where it is farthest from its chord; the rise is outwards when the sides run anticlockwise. */
export function middleOf(sides: Side[], index: number): { x: number; y: number } {
	const [a, b] = [sides[index], sides[(index + 1) % sides.length]];
	if (!a || !b) return { x: 0, y: 0 };
	const [dx, dy] = [b.x_mm - a.x_mm, b.y_mm - a.y_mm];
	const chord = Math.hypot(dx, dy) || 1;
	const out = turnsLeft(sides) ? a.rise_mm : -a.rise_mm;
	return { x: (a.x_mm + b.x_mm) / 2 + (dy / chord) * out, y: (a.y_mm + b.y_mm) / 2 - (dx / chord) * out };
}

/** Whether the corners run anticlockwise (twice the area is positive). */
export function turnsLeft(sides: Side[]): boolean {
	let area = 0;
	sides.forEach((a, i) => {
		const b = sides[(i + 1) % sides.length];
		if (b) area += a.x_mm * b.y_mm - b.x_mm * a.y_mm;
	});
	return area > 0;
}
