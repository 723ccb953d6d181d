import { describe, expect, it } from "vitest";
import { enclosed, inRings, netsToPour, pouredBy, rectangle } from "./areas";
import type { Pad } from "./board";

const pads = ["A", "V", "GROUND", "V", "", "B", "GROUND", "GROUND"].map((net) => ({ net }) as Pad);

describe("areas of the pour", () => {
	it("can be of every net but ground, those with the most pads first", () => {
		expect(netsToPour({ pads })).toEqual(["V", "A", "B"]);
	});
	it("are sent in nanometres", () => {
		expect(pouredBy("main", "V", "far", rectangle(1.5, 2, 3, 4.25))).toEqual({
			kind: "add-pour-area",
			board: "main",
			area: {
				net: "V",
				far: true,
				ring: [
					[1_500_000, 2_000_000],
					[4_500_000, 2_000_000],
					[4_500_000, 6_250_000],
					[1_500_000, 6_250_000],
				],
			},
		});
	});
	it("enclose what a ruler says, and hold what lies in them but not in their holes", () => {
		const square: [number, number][] = [
			[0, 0],
			[4, 0],
			[4, 3],
			[0, 3],
		];
		const hole: [number, number][] = [
			[1, 1],
			[2, 1],
			[2, 2],
			[1, 2],
		];
		expect(enclosed(square)).toBe(12);
		expect([0.5, 1.5, 3, 5].map((x) => inRings([square, hole], { x, y: 1.5 }))).toEqual([true, false, true, false]);
	});
});
