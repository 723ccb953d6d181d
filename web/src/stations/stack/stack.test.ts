import { describe, expect, it } from "vitest";
import { acrossMiddle, dragged, lifted, type Stack, through } from "./stack";

const stack = { inside: [[-1, -1], [65, -1], [65, 43], [-1, 43]] } as unknown as Stack; // biome-ignore format: a square

describe("the line of a cut", () => {
	it("lies across the middle at first, and through a place when asked", () => {
		expect(acrossMiddle(stack)).toEqual({ from: [-5, 21], to: [69, 21] });
		expect(through(stack, 10, 12, false)).toEqual({ from: [-5, 12], to: [69, 12] });
		expect(through(stack, 10, 12, true)).toEqual({ from: [10, -5], to: [10, 47] });
	});
	it("is dragged by an end or as a whole, to half a millimetre", () => {
		const line = { from: [0, 0], to: [10, 0] } as const;
		const at = { from: [0, 0] as [number, number], to: [10, 0] as [number, number] };
		expect(dragged(at, "from", 1.2, -0.3)).toEqual({ from: [1, -0.5], to: [10, 0] });
		expect(dragged(at, "to", 0, 2)).toEqual({ from: [0, 0], to: [10, 2] });
		expect(dragged(at, "both", 0.24, 1)).toEqual({ from: [0, 1], to: [10, 1] });
		expect(line.from).toEqual([0, 0]);
	});
});

describe("taken apart", () => {
	it("what stands on the board stays with it, what lies behind goes back, screws come out in front", () => {
		const at = (sort: string, far = false) => lifted({ sort, far, through: false }, 10);
		expect([at("part"), at("loose"), at("loose", true), at("screw head"), at("post")]).toEqual([0, 10, -10, 15, -20]);
	});
});
