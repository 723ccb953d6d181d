import { describe, expect, it } from "vitest";
import { freeName, KINDS, newControl, partKind, roleOf } from "./controlKinds";

describe("controls of the tray", () => {
	it("start with a kind, a role and a part of that kind", () => {
		for (const { kind } of KINDS) {
			const control = newControl(kind, `${kind} 1`, 10, 20);
			expect(roleOf(control)).toBe(`${kind}:${kind} 1`);
			expect(control.x_mm).toBe(10);
			expect(partKind(control).length).toBeGreaterThan(3);
		}
	});
	it("name the part by form and sensing", () => {
		const pad = newControl("pad", "left pad", 0, 0);
		expect(partKind(pad)).toBe("button");
		expect(partKind({ ...pad, form: "five-way part" } as typeof pad)).toBe("five-way");
		expect(partKind(newControl("stick", "s", 0, 0))).toBe("resistive stick");
	});
	it("get a name of their own", () => {
		expect(freeName("button", ["a", "key 3"])).toBe("key 4");
		expect(freeName("stick", ["stick 1"])).toBe("stick 2");
		expect(freeName("pad", [])).toBe("pad 1");
	});
});
