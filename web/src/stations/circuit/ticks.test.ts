import { expect, test } from "vitest";
import { shareOf, ticksOf, tickText } from "./ticks";

test("an axis is parted in round steps, or in decades", () => {
	expect(ticksOf(0, 4.2, false)).toEqual([0, 1, 2, 3, 4]);
	expect(ticksOf(0, 3.3, false)).toEqual([0, 1, 2, 3]);
	expect(ticksOf(-40, 0, false)).toEqual([-40, -30, -20, -10, 0]);
	expect(ticksOf(1, 1e6, true)).toEqual([1, 10, 100, 1000, 10000, 100000, 1000000]);
	expect(shareOf(1000, 1, 1e6, true)).toBeCloseTo(0.5);
	expect(shareOf(1, 0, 4, false)).toBe(0.25);
	expect([0.5, 1000, 1e6].map(tickText)).toEqual(["0.5", "1k", "1M"]);
});
