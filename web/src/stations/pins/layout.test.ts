import { describe, expect, it } from "vitest";
import { ballGrid, pinSpot } from "./layout";

const size = { w: 100, h: 200 };

describe("pins around a package, seen from above", () => {
	it("runs anticlockwise from the top left on four sides", () => {
		expect(pinSpot(0, 48, 4, size).side).toBe("left");
		expect(pinSpot(12, 48, 4, size).side).toBe("bottom");
		expect(pinSpot(24, 48, 4, size).side).toBe("right");
		expect(pinSpot(36, 48, 4, size).side).toBe("top");
		expect(pinSpot(0, 48, 4, size).y).toBeLessThan(pinSpot(11, 48, 4, size).y);
		expect(pinSpot(24, 48, 4, size).y).toBeGreaterThan(pinSpot(35, 48, 4, size).y);
		expect(pinSpot(36, 48, 4, size).x).toBeGreaterThan(pinSpot(47, 48, 4, size).x);
	});
	it("puts the last pin of two sides opposite the first", () => {
		expect(pinSpot(0, 20, 2, size).y).toBeCloseTo(pinSpot(19, 20, 2, size).y);
		expect(pinSpot(19, 20, 2, size).x).toBe(100);
	});
});

describe("balls of a grid package", () => {
	it("sit in rows by letter and columns by number", () => {
		const grid = ballGrid(["A1", "A3", "B2", "AA1"]);
		expect(grid?.get("A1")).toEqual({ x: 0, y: 0 });
		expect(grid?.get("A3")).toEqual({ x: 2, y: 0 });
		expect(grid?.get("B2")).toEqual({ x: 1, y: 1 });
		expect(grid?.get("AA1")).toEqual({ x: 0, y: 2 });
	});
	it("is nothing for numbered leads", () => {
		expect(ballGrid(["1", "2"])).toBeNull();
		expect(ballGrid([])).toBeNull();
	});
});
