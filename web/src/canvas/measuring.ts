import type { Board } from "./board";
import type { Place } from "./viewport";

export type Span = { from: Place; to: Place };

/** The place that a measurement takes near a pointer: the middle of a pad, via, hole or part, or a corner of the outline within reach; else the pointer's own. */
export function taken(board: Board, at: Place, reach: number): Place {
	const places: Place[] = [
		...board.pads,
		...board.vias,
		...board.holes,
		...board.parts,
		...board.outline.map(([x, y]) => ({ x, y })),
	];
	let best: Place = at;
	let least = reach;
	for (const place of places) {
		const away = Math.hypot(place.x - at.x, place.y - at.y);
		if (away < least) {
			best = { x: place.x, y: place.y };
			least = away;
		}
	}
	return best;
}

/** A measured span in words: straight, across and up. */
export function spanWords({ from, to }: Span): string {
	const [dx, dy] = [to.x - from.x, to.y - from.y];
	return `${Math.hypot(dx, dy).toFixed(3)} mm straight; ${Math.abs(dx).toFixed(3)} mm across, ${Math.abs(dy).toFixed(3)} mm up`;
}
