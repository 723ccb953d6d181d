import { describe, expect, it } from "vitest";
import { pinSpot } from "./layout";

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
