import { expect, test } from "vitest";
import { colourOf, type On, saidMa, saidVolts, stateText, widthOf } from "./lit";

test("a wire is grey at nothing, copper at the most, plum below ground", () => {
	expect(colourOf(0, 5)).toBe("rgb(119, 116, 107)");
	expect(colourOf(5, 5)).toBe("rgb(178, 90, 36)");
	expect(colourOf(9, 5)).toBe("rgb(178, 90, 36)");
	expect(colourOf(-1, 5)).toBe("#4a3f63");
});

test("a wire is as wide as the logarithm of its current, between two limits", () => {
	expect(widthOf(0)).toBe(0.22);
	expect(widthOf(10)).toBeCloseTo((0.22 + 1.5) / 2);
	expect(widthOf(5000)).toBe(1.5);
});

test("volts and currents are said with their units", () => {
	expect(saidVolts(-0.001)).toBe("0.00 V");
	expect(saidVolts(3.299)).toBe("3.30 V");
	expect(saidMa(0)).toBe("0 mA");
	expect(saidMa(0.33)).toBe("330 µA");
	expect(saidMa(12.34)).toBe("12.3 mA");
	expect(saidMa(-500)).toBe("-500 mA");
});

test("a state is one text", () => {
	const sources = [
		{ name: "cell", level: "reversed" },
		{ name: "usb", level: "" },
	] as On["sources"];
	expect(stateText({ sources, acts: "reset", mode: "play", on: false, key: "up" })).toBe(
		"cell=reversed,reset,play,off,key=up",
	);
	expect(stateText({ sources: [], acts: "high", mode: "peak", on: true, key: "" })).toBe("nothing,high,peak,on");
});
