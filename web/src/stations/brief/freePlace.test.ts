import { describe, expect, it } from "vitest";
import { freePlace, isClear, roomOf, type Standing } from "./freePlace";

const outline: [number, number][] = [
	[0, 0],
	[60, 0],
	[60, 40],
	[0, 40],
];
const button = { mark: "round", group: "controls", edge: false };
const standing = (x: number, y: number, w: number, h: number, more: Partial<Standing> = {}): Standing => ({
	far: false,
	placed: true,
	cover_mm: null,
	bodies: [{ x_mm: x, y_mm: y, yard_w_mm: w, yard_h_mm: h, turn_deg: 0 }],
	...more,
});

describe("a free place", () => {
	it("is the middle of an empty board", () => {
		expect(freePlace(outline, [], button)).toEqual({ x: 30, y: 20 });
	});
	it("keeps clear of what is there, but not of the far side or of what has no place", () => {
		const taken = [
			standing(30, 20, 12, 8),
			standing(30, 20, 60, 40, { far: true }),
			standing(30, 20, 60, 40, { placed: false }),
		];
		const place = freePlace(outline, taken, button);
		const { w, h } = roomOf(button);
		expect(place && isClear(place.x, place.y, w, h, taken)).toBe(true);
	});
	it("keeps clear of a module over the board and of a turned part's whole reach", () => {
		expect(isClear(30, 20, 4, 4, [standing(5, 5, 2, 2, { cover_mm: [20, 10, 40, 30] })])).toBe(false);
		const tilted = standing(30, 20, 20, 2);
		expect(isClear(30, 26, 4, 4, [tilted])).toBe(true);
		const turned = { ...tilted, bodies: tilted.bodies.map((b) => ({ ...b, turn_deg: 45 })) };
		expect(isClear(30, 26, 4, 4, [turned])).toBe(false);
	});
	it("is at the edge for what is plugged from outside", () => {
		const place = freePlace(outline, [], { ...button, edge: true });
		const { h } = roomOf(button);
		expect(place?.y).toBeLessThan(h / 2 + 1.1);
	});
	it("is null on a full board", () => {
		expect(freePlace(outline, [standing(30, 20, 60, 40)], button)).toBeNull();
	});
});
