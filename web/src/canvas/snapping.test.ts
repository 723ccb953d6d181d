import { describe, expect, it } from "vitest";
import { settle, snap } from "./snapping";

describe("snapping", () => {
	it("rounds to the step without dust", () => {
		expect(snap(12.26, 0.5)).toBe(12.5);
		expect(snap(0.1 + 0.2, 0.1)).toBe(0.3);
		expect(snap(-0.26, 0.5)).toBe(-0.5);
	});
	it("draws onto the line of a near neighbour, axis by axis", () => {
		const settled = settle({ x: 10.4, y: 20.2 }, [{ x: 10.1, y: 5 }], 0.5, 0.7);
		expect(settled.point).toEqual({ x: 10.1, y: 20 });
		expect(settled.lineX).toBe(10.1);
		expect(settled.lineY).toBeNull();
	});
	it("takes the nearest of several lines", () => {
		expect(
			settle(
				{ x: 10, y: 0 },
				[
					{ x: 10.5, y: 9 },
					{ x: 9.8, y: 9 },
				],
				0.5,
				0.7,
			).point.x,
		).toBe(9.8);
	});
});
