import { describe, expect, it } from "vitest";
import { type Field, freeName, means } from "./kinds";

describe("names of new things", () => {
	it("are the plain word first, then numbered", () => {
		expect(freeName("screen", [])).toBe("screen");
		expect(freeName("screen", ["Screen"])).toBe("screen 2");
		expect(freeName("button", ["key 1", "menu"])).toBe("key 2");
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
