import { describe, expect, it } from "vitest";
import { arrange, crossings, legs, sideOf } from "./layout";

const size = { w: 800, h: 500 };
const aim = (signal: string, x: number, y: number) => ({ signal, words: signal, toward: { x, y } });

describe("names around the chip", () => {
	it("stand on the side that their direction meets", () => {
		expect(sideOf({ x: -10, y: 1 }, size)).toBe("left");
		expect(sideOf({ x: 10, y: -1 }, size)).toBe("right");
		expect(sideOf({ x: 1, y: -10 }, size)).toBe("top");
		expect(sideOf({ x: 1, y: 10 }, size)).toBe("bottom");
	});
	it("run down a side in the order of their directions", () => {
		const nodes = arrange([aim("low", 10, 5), aim("high", 10, -5), aim("mid", 10, 0)], size);
		expect([...nodes].sort((a, b) => a.y - b.y).map((n) => n.signal)).toEqual(["high", "mid", "low"]);
		expect(nodes.every((n) => n.x > 700 && n.anchor === "end")).toBe(true);
	});
	it("never lie upon each other, and none is lost", () => {
		const many = Array.from({ length: 60 }, (_, i) => aim(`signal ${i}`, Math.cos(i), Math.sin(i)));
		const nodes = arrange(many, size);
		expect(new Set(nodes.map((n) => n.signal)).size).toBe(60);
		for (const side of ["start", "end"] as const) {
			const ys = nodes
				.filter((n) => n.anchor === side)
				.map((n) => n.y)
				.sort((a, b) => a - b);
			for (let i = 1; i < ys.length; i++) expect((ys[i] ?? 0) - (ys[i - 1] ?? 0)).toBeGreaterThan(11);
		}
	});
	it("have a place when nobody knows where they go", () => {
		expect(arrange([{ signal: "a", words: "a", toward: null }], size)).toHaveLength(1);
	});
});

describe("links", () => {
	const link = (x1: number, y1: number, x2: number, y2: number) => ({ from: { x: x1, y: y1 }, to: { x: x2, y: y2 } });
	it("cross once inside, not at a shared end and not beyond it", () => {
		expect(crossings([link(0, 0, 2, 2), link(0, 2, 2, 0)])).toEqual([{ x: 1, y: 1 }]);
		expect(crossings([link(0, 0, 2, 2), link(0, 0, 2, 0)])).toEqual([]);
		expect(crossings([link(0, 0, 1, 1), link(3, 0, 0, 3)])).toEqual([]);
	});
});

describe("legs", () => {
	it("leave the body at right angles to their row", () => {
		const pins = [-1, 0, 1].flatMap((y, i) => [
			{ number: `l${i}`, x_mm: -3, y_mm: y },
			{ number: `r${i}`, x_mm: 3, y_mm: y },
		]);
		const drawn = legs(pins, { w: 60, h: 60 });
		expect(drawn.scale).toBeCloseTo(10);
		const left = drawn.legs.find((l) => l.number === "l2");
		expect(left?.out.x).toBeCloseTo(-1);
		expect(left?.y).toBeCloseTo(-10);
		expect(drawn.legs.find((l) => l.number === "r0")?.out.x).toBeCloseTo(1);
	});
});
