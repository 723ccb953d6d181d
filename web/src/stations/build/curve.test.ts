import { describe, expect, it } from "vitest";
import { line, readingOf, scaleOf } from "./curve";

describe("readings as people type them", () => {
	it("take prefixes, commas, the prefix in the middle, and words", () => {
		expect(readingOf("4k7")).toBe(4700);
		expect(readingOf("10 kΩ")).toBe(10_000);
		expect(readingOf("2,2 MΩ")).toBeCloseTo(2.2e6);
		expect(readingOf("3.3")).toBe(3.3);
		expect(readingOf("650 mV")).toBeCloseTo(0.65);
		expect(readingOf("100nF")).toBeCloseTo(1e-7);
		expect(readingOf("open")).toBe(2e7);
		expect([readingOf("yes"), readingOf("No")]).toEqual([1, 0]);
	});
	it("are refused where they are none", () => {
		for (const text of ["", "abc", "3 3", "1.2.3"]) expect(readingOf(text)).toBeNull();
	});
});

describe("a curve", () => {
	it("is drawn with seconds to the right and the heat up", () => {
		const points = [
			{ s: 0, c: 25 },
			{ s: 400, c: 240 },
		];
		const { x, y, most } = scaleOf(points, 400, 100);
		expect(most).toBe(400);
		expect(x(200)).toBe(200);
		expect(y(0)).toBe(100);
		expect(y(240)).toBeLessThan(y(25));
		expect(line(points, x, y)).toMatch(/^M0\.0 .*L400\.0 /);
	});
});
