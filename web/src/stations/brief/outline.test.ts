import { expect, test } from "vitest";
import { middleOf, turnsLeft } from "./outline";

const side = (x_mm: number, y_mm: number, rise_mm = 0) => ({ x_mm, y_mm, rise_mm, length_mm: 1 });
const square = [side(0, 0), side(60, 0, 5), side(60, 40), side(0, 40)];

test("a straight side has its middle on it, a bent one its top", () => {
	expect(middleOf(square, 0)).toEqual({ x: 30, y: 0 });
	expect(middleOf(square, 1)).toEqual({ x: 65, y: 20 });
});

test("outwards is outwards whichever way the corners run", () => {
	const back = [side(0, 0), side(0, 40), side(60, 40, 5), side(60, 0)];
	expect(turnsLeft(square)).toBe(true);
	expect(turnsLeft(back)).toBe(false);
	expect(middleOf(back, 2)).toEqual({ x: 65, y: 20 });
});
