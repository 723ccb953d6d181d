import type { Schemas } from "../../api/client";

type Thing = Schemas["SizedThing"];

/** Whether a body of w x h mm at (x, y) keeps clear of every near-side thing by 0.6 mm. */
export function isClear(x: number, y: number, w: number, h: number, things: Thing[]): boolean {
	return things.every(
		(t) => t.far || Math.abs(t.x_mm - x) >= (t.w_mm + w) / 2 + 0.6 || Math.abs(t.y_mm - y) >= (t.h_mm + h) / 2 + 0.6,
	);
}

/** The free place nearest to the middle of the outline's box, or null where there is none. */
export function freePlace(
	outline: [number, number][],
	things: Thing[],
	w: number,
	h: number,
): { x: number; y: number } | null {
	const xs = outline.map((p) => p[0]);
	const ys = outline.map((p) => p[1]);
	const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const [midX, midY] = [(left + right) / 2, (bottom + top) / 2];
	let best: { x: number; y: number; away: number } | null = null;
	for (let y = bottom + h / 2 + 1; y <= top - h / 2 - 1; y += 0.5)
		for (let x = left + w / 2 + 1; x <= right - w / 2 - 1; x += 0.5) {
			const away = Math.hypot(x - midX, y - midY);
			if ((!best || away < best.away) && isClear(x, y, w, h, things)) best = { x, y, away };
		}
	return best && { x: Math.round(best.x * 2) / 2, y: Math.round(best.y * 2) / 2 };
}

/** A name that no control has yet. */
export function newName(taken: string[]): string {
	for (let number = taken.length + 1; ; number++) {
		const name = `key ${number}`;
		if (!taken.includes(name)) return name;
	}
}
