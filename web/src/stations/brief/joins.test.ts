import { expect, test } from "vitest";
import { joinsIn, joinsText, netName } from "./joins";

test("joins are read and written the same", () => {
	const text = "port 1 plus = @ONE_PLUS; supply = supply";
	expect([...joinsIn(text)]).toEqual([
		["port 1 plus", "@ONE_PLUS"],
		["supply", "supply"],
	]);
	expect(joinsText(joinsIn(text))).toBe(text);
	expect(joinsIn("nothing; = x;").size).toBe(0);
});

test("a net is called as the brief wants it", () => {
	expect(netName("hub plus")).toBe("@HUB_PLUS");
	expect(netName("@one-2")).toBe("@ONE_2");
	expect(netName("3")).toBe("");
});
