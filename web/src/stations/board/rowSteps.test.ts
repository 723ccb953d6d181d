import { describe, expect, it } from "vitest";
import { rowSteps } from "./rowSteps";

type Yard = [number, number, number, number];
const flat = { yard: [-1, -0.6, 1, 0.6] as Yard, turn: 0 };
const upright = { yard: [-0.5, -2.1, 0.5, 2.1] as Yard, turn: 270 };

describe("steps of rows", () => {
	it("keep the largest courtyard, each turned like the first, on a grid of 0.25 mm", () => {
		expect(rowSteps([flat])).toEqual({ across: 2, up: 1.25 });
		expect(rowSteps([flat, upright])).toEqual({ across: 4.25, up: 1.25 });
		expect(rowSteps([upright, flat])).toEqual({ across: 1.25, up: 4.25 });
	});
	it("take the longer side of a slanted one", () => {
		expect(rowSteps([flat, { ...flat, turn: 30 }])).toEqual({ across: 2, up: 2 });
	});
});
