import { expect, test } from "vitest";
import { likeThis, type Part, padLines, padsIn, padsOf, withPins } from "./typed";

const PART = {
	id: "regulator-linear-low",
	kind: "linear regulator",
	description: "x",
	evidence: "drawing",
	evidence_text: "page 4",
	terminals: {
		in: { pads: ["1"], does: "supply", joined: false, open: "" },
		alert: { pads: ["2"], does: "open drain", joined: false, open: "nobody reads it" },
	},
	values: { current_ma: 300 },
} as unknown as Part;

test("a copy has a name of its own and nobody has seen its drawing", () => {
	const copy = likeThis(PART, ["own/regulator-linear-low"]);
	expect([copy.id, copy.evidence, copy.evidence_text]).toEqual(["own/regulator-linear-low-2", "none", ""]);
	expect(copy.values).toEqual(PART.values);
	expect(likeThis({ ...PART, id: "own:two sides;pins=8" }, []).id).toBe("own/two-sides-pins-8");
});

test("pads are read as they are typed and keep what is not typed", () => {
	const before = [
		{
			number: "1",
			x_mm: 0,
			y_mm: 1,
			w_mm: 2,
			h_mm: 3,
			drill_mm: 0.9,
			round: true,
			paste: true,
			covered: false,
			bare_mm: 0,
		},
	];
	expect(padLines(before)).toBe("1  0  1  2  3  0.9");
	const { pads, bad } = padsOf("A1 0,5 1 2 3\n\n2 0 0 x 1\n3 1 1 1", before);
	expect(bad).toEqual([3, 4]);
	expect(pads).toEqual([{ ...before[0], number: "A1", x_mm: 0, y_mm: 5, w_mm: 1, h_mm: 2, drill_mm: 3 }]);
	expect(padsIn(" 1, 4;5 ")).toEqual(["1", "4", "5"]);
});

test("a pasted pin keeps why it may stay open", () => {
	const made = withPins(PART, [
		{ name: "alert", pads: ["2", "3"], does: "open drain", guessed: true },
		{ name: "nc", pads: ["4"], does: "nothing", guessed: true },
	]);
	expect(made.terminals.alert?.open).toBe("nobody reads it");
	expect(made.terminals.nc?.open).toBe("joined to nothing inside");
	expect(made.terminals.in).toBeUndefined();
});
