import { expect, test } from "vitest";
import { padsIn } from "./padsIn";

test("pads with their nets are read as they are typed, or not at all", () => {
	expect(padsIn("1 supply, 2 GROUND")).toEqual({ "1": "SUPPLY", "2": "GROUND" });
	expect(padsIn("a1 ROW_1")).toEqual({ A1: "ROW_1" });
	expect(padsIn("1 SUPPLY, 2")).toBeNull();
	expect(padsIn("1 2NET")).toBeNull();
	expect(padsIn("")).toBeNull();
});
