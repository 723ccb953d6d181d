import { describe, expect, it } from "vitest";
import { freePlace, isClear, newName } from "./freePlace";

const outline: [number, number][] = [
	[0, 0],
	[60, 0],
	[60, 40],
	[0, 40],
];
const thing = (x: number, y: number, w: number, h: number, far = false) => ({
	thing: "t",
	kind: "button",
	name: "t",
	x_mm: x,
	y_mm: y,
	w_mm: w,
	h_mm: h,
	yard_w_mm: w,
	yard_h_mm: h,
	far,
});

describe("a free place", () => {
	it("is the middle of an empty board", () => {
		expect(freePlace(outline, [], 10, 6)).toEqual({ x: 30, y: 20 });
	});
	it("keeps clear of what is there, but not of the far side", () => {
		const taken = [thing(30, 20, 12, 8), thing(30, 20, 60, 40, true)];
		const place = freePlace(outline, taken, 10, 6);
		expect(place && isClear(place.x, place.y, 10, 6, taken)).toBe(true);
	});
	it("is null on a full board", () => {
		expect(freePlace(outline, [thing(30, 20, 60, 40)], 10, 6)).toBeNull();
	});
	it("gets a name of its own", () => {
		expect(newName(["a", "key 3"])).toBe("key 4");
	});
});
