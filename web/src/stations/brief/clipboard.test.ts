import { describe, expect, it } from "vitest";
import { asText, asThings, type PlainThing, shiftTo } from "./clipboard";

const at = (x_mm: number, y_mm: number) =>
	({ kind: "button", name: `b ${x_mm}`, place: { x_mm, y_mm } }) as unknown as PlainThing;

describe("the clipboard", () => {
	it("reads back what it wrote, and nothing else", () => {
		const things = [at(10, 20), at(30, 40)];
		expect(asThings(asText(things))).toEqual(things);
		for (const text of ["", "hello", "null", "[]", "{}", '{"loquet-things": []}', '{"loquet-things": 4}'])
			expect(asThings(text)).toBeNull();
	});

	it("brings the middle to the spot, by half millimetres", () => {
		expect(shiftTo([at(10, 20), at(30, 40)], { x: 25.2, y: 10.3 })).toEqual({ dx_mm: 5, dy_mm: -19.5 });
	});

	it("goes 10 mm aside where no spot is known", () => {
		expect(shiftTo([at(10, 20)], null)).toEqual({ dx_mm: 10, dy_mm: 0 });
		expect(shiftTo([{ kind: "button", name: "b" } as unknown as PlainThing], { x: 1, y: 1 })).toEqual({
			dx_mm: 10,
			dy_mm: 0,
		});
	});
});
