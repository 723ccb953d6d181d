import type { Kind, Thing } from "./kinds";

type Spot = { x: number; y: number };
type Piece = Pick<Thing["bodies"][number], "x_mm" | "y_mm" | "yard_w_mm" | "yard_h_mm" | "turn_deg">;
export type Standing = Pick<Thing, "far" | "placed" | "cover_mm"> & { through?: boolean } & { bodies: Piece[] };

/** Whether an upright w x h mm at (x, y) keeps clear by 0.2 mm of every piece and module on its side. */
export function isClear(x: number, y: number, w: number, h: number, things: Standing[], behind = false): boolean {
	return things.every((thing) => {
		if (!thing.placed || (thing.far !== behind && !thing.through)) return true;
		const cover = thing.cover_mm;
		if (cover && x + w / 2 > cover[0] && x - w / 2 < cover[2] && y + h / 2 > cover[1] && y - h / 2 < cover[3])
			return false;
		return thing.bodies.every((body) => {
			const turned = body.turn_deg % 180 === 90;
			const [bw, bh] = turned ? [body.yard_h_mm, body.yard_w_mm] : [body.yard_w_mm, body.yard_h_mm];
			const most = body.turn_deg % 90 ? Math.hypot(bw, bh) : 0;
			return (
				Math.abs(body.x_mm - x) >= (Math.max(bw, most) + w) / 2 + 0.2 ||
				Math.abs(body.y_mm - y) >= (Math.max(bh, most) + h) / 2 + 0.2
			);
		});
	});
}

/** Room that a new thing of a kind wants, in mm; its own part decides later. */
export function roomOf(kind: Pick<Kind, "mark" | "group">): { w: number; h: number } {
	const rooms: Record<string, [number, number]> = {
		round: [11.4, 7],
		cross: [29.4, 25],
		stick: [19, 20],
		knob: [13.4, 16.6],
		slide: [36, 8.4],
		glass: [40, 14],
		lamp: [3.6, 2.6],
		hole: [5, 5],
		dot: [3, 3],
		cell: [52, 26],
	};
	const [w, h] = rooms[kind.mark] ?? [11, 9];
	return { w, h };
}

/** The free place on a board, as near to its middle as can be; null where there is none. */
export function freePlace(
	outline: [number, number][],
	things: Standing[],
	kind: Pick<Kind, "mark" | "group" | "edge">,
	behind = false,
): Spot | null {
	const { w, h } = roomOf(kind);
	const xs = outline.map((p) => p[0]);
	const ys = outline.map((p) => p[1]);
	const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	let best: (Spot & { away: number }) | null = null;
	for (let y = Math.ceil((bottom + h / 2 + 0.5) * 2) / 2; y <= top - h / 2 - 0.5; y += 0.5)
		for (let x = Math.ceil((left + w / 2 + 0.5) * 2) / 2; x <= right - w / 2 - 0.5; x += 0.5) {
			const middle = Math.hypot(x - (left + right) / 2, y - (bottom + top) / 2);
			const edge = Math.min(x - left, right - x, y - bottom, top - y);
			const away = kind.edge ? edge + middle / 1000 : middle;
			if ((!best || away < best.away) && isClear(x, y, w, h, things, behind)) best = { x, y, away };
		}
	return best && { x: best.x, y: best.y };
}
