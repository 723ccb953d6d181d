import { expect, test } from "vitest";
import type { Board } from "../../canvas/board";
import { shapeOf, solidOf, strips } from "./solid";

const board = {
	outline: [
		[0, 0],
		[60, 0],
		[60, 40],
		[0, 40],
	],
	openings: [
		[
			[20, 10],
			[30, 10],
			[30, 20],
			[20, 20],
		],
	],
	holes: [{ x: 5, y: 5, d: 2 }],
	tracks: [{ net: "A", far: true, x1: 10, y1: 10, x2: 20, y2: 10, w: 0.2, by_hand: false }],
	pads: [],
	parts: [
		{ ref: "U1", x: 30, y: 20, far: false, height: 1.6, body: [-3, -2, 3, 2] },
		{ ref: "BT1", x: 10, y: 20, far: true, height: 14, body: [-5, -8, 5, 8] },
		{ ref: "TP1", x: 50, y: 20, far: false, height: 0, body: [-1, -1, 1, 1] },
	],
	covers: [{ thing: "screen", rect: [10, 20, 50, 38], above: 11 }],
	thickness_mm: 1.6,
} as unknown as Board;

test("openings and holes go through", () => {
	expect(shapeOf(board).holes).toHaveLength(2);
});

test("a track is two triangles as wide and as long as it is, round ends squared, on its side", () => {
	const points = strips(board);
	const of = (axis: number) => Array.from(points).filter((_, i) => i % 3 === axis);
	expect(points).toHaveLength(18);
	expect([Math.min(...of(0)), Math.max(...of(0))].map((v) => Number(v.toFixed(3)))).toEqual([9.9, 20.1]);
	expect([Math.min(...of(1)), Math.max(...of(1))].map((v) => Number(v.toFixed(3)))).toEqual([9.9, 10.1]);
	expect(Math.max(...of(2))).toBeLessThan(-0.8);
});

test("parts stand on their side with their true height; what has none is left out; a module hangs above", () => {
	const spots = solidOf(board)
		.children.slice(2)
		.map((c) => Number(c.position.z.toFixed(2)));
	expect(spots).toEqual([1.6, -7.8, 11]);
});
