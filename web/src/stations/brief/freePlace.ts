import type { Schemas } from "../../api/client";

type Thing = Schemas["SizedThing"];

/** Whether a courtyard of w x h mm at (x, y) keeps clear of every near-side thing by 0.2 mm. */
export function isClear(x: number, y: number, w: number, h: number, things: Thing[]): boolean {
	return things.every(
		(t) =>
			t.far ||
			Math.abs(t.x_mm - x) >= (t.yard_w_mm + w) / 2 + 0.2 ||
			Math.abs(t.y_mm - y) >= (t.yard_h_mm + h) / 2 + 0.2,
	);
}

/** The free place beside the controls that are there, as near to one of them as can be; null where there is none. */
export function freePlace(
	outline: [number, number][],
	things: Thing[],
	w: number,
	h: number,
): { x: number; y: number } | null {
	const xs = outline.map((p) => p[0]);
	const ys = outline.map((p) => p[1]);
	const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const controls = things.filter((t) => t.kind === "button");
	let best: { x: number; y: number; away: number } | null = null;
	for (let y = Math.ceil((bottom + h / 2 + 1) * 2) / 2; y <= top - h / 2 - 1; y += 0.5)
		for (let x = Math.ceil((left + w / 2 + 1) * 2) / 2; x <= right - w / 2 - 1; x += 0.5) {
			const middle = Math.hypot(x - (left + right) / 2, y - (bottom + top) / 2);
			const beside = Math.min(...controls.map((c) => Math.hypot(x - c.x_mm, y - c.y_mm)));
			const away = (controls.length ? beside : middle) + middle / 1000;
			if ((!best || away < best.away) && isClear(x, y, w, h, things)) best = { x, y, away };
		}
	return best && { x: best.x, y: best.y };
}

/** A name that no control has yet. */
export function newName(taken: string[]): string {
	for (let number = taken.length + 1; ; number++) {
		const name = `key ${number}`;
		if (!taken.includes(name)) return name;
	}
}
