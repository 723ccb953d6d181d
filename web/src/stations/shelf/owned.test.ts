import { expect, test } from "vitest";
import { type House, idOf, pairLines, pairsIn, priced } from "./owned";

test("a name becomes an id that nobody has", () => {
	expect(idOf("house", "Fell & Beck, Boards", [])).toBe("house/fell-beck-boards");
	expect(idOf("supplier", "Öre", ["supplier/o-re", "supplier/ore"])).toMatch(/^supplier\/o/);
	expect(idOf("house", "Beck", ["house/beck"])).toBe("house/beck-2");
});

test("pairs are read line by line and written the same", () => {
	expect(pairsIn("1 = 1\n20 = 0,86\n\nwrong\n= 3")).toEqual({
		pairs: [
			["1", 1],
			["20", 0.86],
		],
		bad: [4, 5],
	});
	expect(
		pairLines([
			[1, 1],
			["gold", 17],
		]),
	).toBe("1 = 1\ngold = 17");
});

test("what quotes tell becomes the prices of a house, its options those of the quotes", () => {
	const house = { finishes: ["lead-free solder"], colours: ["green"], copper_layers: [2], thickness_um: [1600] };
	const quote = {
		quantity: 5,
		width_mm: 50,
		height_mm: 40,
		copper_layers: 4,
		finish: "gold",
		colour: "",
		thickness_um: 800,
	};
	const learnt = {
		prices: { setup_cents: 1200, area_cents_dm2: 240.12345, "finish gold": 900 },
		misses: [],
		within_cents: 3,
		untold: [],
	};
	const found = priced(house as unknown as House, learnt, [{ ...quote, cents: 1, words: "" }]);
	expect(found).toMatchObject({
		known: "learnt",
		within_cents: 3,
		setup_cents: 1200,
		area_cents_dm2: 240.123,
		inner_cents_dm2: 0,
		finishes: ["gold"],
		colours: ["green"],
		finish_cents: { gold: 900 },
		copper_layers: [4],
		thickness_um: [800],
		copper_um: [35],
	});
});
