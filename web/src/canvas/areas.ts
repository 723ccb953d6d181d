import type { Edit } from "../api/client";
import type { Board, Side } from "./board";
import type { Place } from "./viewport";

const NM = 1_000_000;

/** Nets that an area can be poured with: those with the most pads first. */
export function netsToPour(board: Pick<Board, "pads">): string[] {
	const counts = new Map<string, number>();
	for (const { net } of board.pads) if (net && net !== "GROUND") counts.set(net, (counts.get(net) ?? 0) + 1);
	return [...counts].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0])).map(([net]) => net);
}

/** The edit that pours a closed line with a net. */
export const pouredBy = (board: string, net: string, side: Side, ring: Place[]): Edit => ({
	kind: "add-pour-area",
	board,
	area: { net, far: side === "far", ring: ring.map(({ x, y }) => [Math.round(x * NM), Math.round(y * NM)]) },
});

/** The corners of an upright rectangle in mm. */
export const rectangle = (left: number, bottom: number, wide: number, high: number): Place[] => [
	{ x: left, y: bottom },
	{ x: left + wide, y: bottom },
	{ x: left + wide, y: bottom + high },
	{ x: left, y: bottom + high },
];

/** What a closed line encloses, in square mm. */
export function enclosed(ring: [number, number][]): number {
	let twice = 0;
	ring.forEach(([x, y], index) => {
		const [u, v] = ring[(index + 1) % ring.length] ?? [x, y];
		twice += x * v - u * y;
	});
	return Math.abs(twice) / 2;
}

/** Whether a place lies within rings, the first the outer one (an odd count of lines to its right). */
export function inRings(rings: [number, number][][], { x, y }: Place): boolean {
	let inside = false;
	for (const ring of rings)
		ring.forEach(([x1, y1], index) => {
			const [x2, y2] = ring[(index + 1) % ring.length] ?? [x1, y1];
			if (y1 > y !== y2 > y && x < x1 + ((y - y1) / (y2 - y1)) * (x2 - x1)) inside = !inside;
		});
	return inside;
}
