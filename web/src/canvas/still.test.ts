import { expect, test } from "vitest";
import { roomOf, shiftOf } from "./still";

const board = { name: "main" };
const still = { about: [board, "near", 12], x: 100, y: 400, room: { x: 50, y: 30 } };

test("a picture reaches a quarter of the canvas beyond it on each side", () => {
	expect(roomOf(1000, 602)).toEqual({ x: 250, y: 151 });
});

test("a picture of the same things is shifted as far as it reaches", () => {
	expect(shiftOf(still, [board, "near", 12], 100, 400)).toEqual({ dx: 0, dy: 0 });
	expect(shiftOf(still, [board, "near", 12], 150, 370)).toEqual({ dx: 50, dy: -30 });
	expect(shiftOf(still, [board, "near", 12], 151, 400)).toBeNull();
	expect(shiftOf(still, [board, "near", 12], 100, 431)).toBeNull();
});

test("a picture of anything else is not taken", () => {
	expect(shiftOf(null, [board], 0, 0)).toBeNull();
	expect(shiftOf(still, [{ ...board }, "near", 12], 100, 400)).toBeNull();
	expect(shiftOf(still, [board, "far", 12], 100, 400)).toBeNull();
	expect(shiftOf(still, [board, "near"], 100, 400)).toBeNull();
});
