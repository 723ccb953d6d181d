import { describe, expect, it } from "vitest";
import { typedNumber } from "./typedNumber";

describe("numbers as people type them", () => {
	it("take comma, point and units", () => {
		expect(typedNumber("160,5", "mm")).toBe(160.5);
		expect(typedNumber(" 16 cm", "mm")).toBe(160);
		expect(typedNumber("1 in", "mm")).toBeCloseTo(25.4);
		expect(typedNumber("400kHz", "kHz")).toBe(400);
		expect(typedNumber("-3", "mm")).toBe(-3);
	});
	it("are refused where they are none", () => {
		for (const text of ["abc", "", "3 apples", "1.2.3", "4 mA"]) expect(typedNumber(text, "mm")).toBeNull();
	});
});
