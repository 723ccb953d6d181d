import { expect, test } from "vitest";
import type { Board } from "./board";
import { spanWords, taken } from "./measuring";

const board = {
	pads: [{ x: 10, y: 10 }],
	vias: [{ x: 12, y: 10 }],
	holes: [],
	parts: [{ x: 20, y: 10 }],
	outline: [[0, 0]],
} as unknown as Board;

test("the nearest middle or corner within reach is taken, else the place itself", () => {
	expect(taken(board, { x: 10.4, y: 10 }, 1)).toEqual({ x: 10, y: 10 });
	expect(taken(board, { x: 11.2, y: 10 }, 1)).toEqual({ x: 12, y: 10 });
	expect(taken(board, { x: 0.3, y: 0.3 }, 1)).toEqual({ x: 0, y: 0 });
	expect(taken(board, { x: 15, y: 15 }, 1)).toEqual({ x: 15, y: 15 });
});

test("a span is said straight, across and up", () => {
	expect(spanWords({ from: { x: 4, y: 6 }, to: { x: 1, y: 2 } })).toBe(
		"5.000 mm straight; 3.000 mm across, 4.000 mm up",
	);
});
