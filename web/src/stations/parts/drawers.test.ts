import { expect, test } from "vitest";
import { boundsOf, byGroup, byKind, type KitLine, type Line, priceOf, scaleOf, TRUE_PX } from "./drawers";

const line = (kind: string, w: number, more: object = {}) =>
	({ kind, body_mm: [0, 0, w, 2], lands: [], price_cents: 10, to_buy: 3, ...more }) as unknown as Line;

test("a part is drawn at true size where it fits, and at a half or a third where it does not", () => {
	expect(TRUE_PX).toBeCloseTo(3.78, 2);
	expect(scaleOf(line("resistor", 1.6)).part).toBe(1);
	expect(scaleOf(line("switch", 39.6)).part).toBe(1); // 150 px is 39.7 mm
	expect(scaleOf(line("holder", 44)).part).toBe(2);
	expect(scaleOf(line("screen", 100)).part).toBe(3);
});

test("pads beyond the body count", () => {
	const wide = line("chip", 4, { lands: [{ x_mm: 3, y_mm: 0, w_mm: 2, h_mm: 1 }] });
	expect(boundsOf(wide)).toEqual([-2, -1, 4, 1]);
});

test("drawers keep the order in which things first come", () => {
	const kinds = byKind([line("a", 1), line("b", 1), line("a", 2)]);
	expect(kinds.map(([kind, rows]) => [kind, rows.length])).toEqual([
		["a", 2],
		["b", 1],
	]);
	const kit = [{ group: "power" }, { group: "making" }, { group: "power" }] as KitLine[];
	expect(byGroup(kit).map(([group, rows]) => [group, rows.length])).toEqual([
		["power", 2],
		["making", 1],
	]);
});

test("prices add up with spares, and what has none is counted", () => {
	expect(priceOf([line("a", 1), line("b", 1, { price_cents: null })])).toEqual({ cents: 30, unknown: 1 });
});
