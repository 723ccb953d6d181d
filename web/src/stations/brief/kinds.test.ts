import { describe, expect, it } from "vitest";
import { type Field, freeName, means, typedNumber } from "./kinds";

describe("names of new things", () => {
	it("are the plain word first, then numbered", () => {
		expect(freeName("screen", [])).toBe("screen");
		expect(freeName("screen", ["Screen"])).toBe("screen 2");
		expect(freeName("button", ["key 1", "menu"])).toBe("key 2");
	});
});

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

describe("fields that depend on others", () => {
	const drill = { name: "drill_mm", when: { package: ["two rows"] } } as unknown as Field;
	const volts = { name: "gives_v", when: { feeds: ["true"] } } as unknown as Field;
	it("are shown with the values for which they mean something", () => {
		expect(means(drill, { package: "two rows" }, {})).toBe(true);
		expect(means(drill, { package: "no leads" }, {})).toBe(false);
		expect(means(volts, {}, { feeds: false })).toBe(false);
		expect(means(volts, { feeds: true }, { feeds: false })).toBe(true);
		expect(means({ ...volts, when: {} }, {}, {})).toBe(true);
	});
});
