import { expect, test } from "vitest";
import { current, drawnOf, lasting, layRiver, type Plan, takersOf, wayOf } from "./river";

const flows = (play: number, peak = play) => ({ play, idle: play / 2, sleep: 0, peak });
const rail = (name: string, parent: string, load: number, drawn: number) =>
	({ name, parent, volts: 3.3, load: flows(load), drawn: flows(drawn) }) as Plan["rails"][number];
const plan = {
	sources: [],
	ways: [],
	workings: [],
	rails: [rail("cell", "", 100, 80), rail("five", "cell", 20, 40)],
	loads: [
		{ thing: "chip", rail: "cell", currents: flows(10), origin: "" },
		{ thing: "screen", rail: "cell", currents: flows(50), origin: "" },
		{ thing: "stick", rail: "five", currents: flows(20), origin: "" },
	],
} as unknown as Plan;

test("a rail feeds its things and the rails that are made of it, the strongest first", () => {
	const [cell] = plan.rails;
	const takers = takersOf(plan, cell as Plan["rails"][number], "play");
	expect(takers.map((t) => [t.name, t.ma, t.rail])).toEqual([
		["screen", 50, false],
		["five", 40, true],
		["chip", 10, false],
	]);
});

test("widths are currents: the strongest is 64 px, bands touch and fill the rail, rails do not overlap", () => {
	const { reaches, height } = layRiver(plan, "play");
	const [cell, five] = reaches;
	expect(cell?.outWidth).toBeCloseTo(64);
	expect(cell?.inWidth).toBeCloseTo(51.2);
	expect(cell?.branches.map((b) => b.width)).toEqual([32, 25.6, 6.4]);
	for (const [a, b] of [
		[0, 1],
		[1, 2],
	] as const) {
		const [one, other] = [cell?.branches[a], cell?.branches[b]];
		expect((one?.from ?? 0) + (one?.width ?? 0) / 2).toBeCloseTo((other?.from ?? 0) - (other?.width ?? 0) / 2);
	}
	expect(five?.top).toBeGreaterThan((cell?.top ?? 0) + (cell?.height ?? 0));
	expect(height).toBeGreaterThan((five?.top ?? 0) + (five?.height ?? 0));
});

test("what sleeps has no width, what draws little is still seen", () => {
	expect(layRiver(plan, "sleep").reaches.every((r) => r.outWidth === 0)).toBe(true);
	const faint = { ...plan, loads: [{ thing: "chip", rail: "cell", currents: flows(0.001), origin: "" }] } as Plan;
	expect(layRiver(faint, "play").reaches[0]?.branches.at(-1)?.width).toBe(1.5);
});

test("currents and durations are said as the trade says them", () => {
	expect([0, 0.004, 0.024, 0.5, 24, 500, 1250].map(current)).toEqual([
		"0 mA",
		"4.0 µA",
		"24 µA",
		"0.5 mA",
		"24 mA",
		"500 mA",
		"1.25 A",
	]);
	expect([0.5, 28.03, 100, 34000].map(lasting)).toEqual(["30 min", "28.0 h", "4 days", "3.9 years"]);
});

test("while its cell is charged a rail is fed by the port, which gives the charge as well", () => {
	const [cell, five] = plan.rails as [Plan["rails"][number], Plan["rails"][number]];
	const charged = { ...cell, plugged: { port: "plug", limit_ma: 500, charge_ma: 250, play_ma: 70 } };
	expect(drawnOf(charged, "charge")).toBe(320);
	expect(drawnOf(charged, "play")).toBe(80);
	expect(drawnOf(five, "charge")).toBe(40);
	const { reaches } = layRiver({ ...plan, rails: [charged, five] }, "charge");
	expect(reaches[0]?.inWidth).toBeCloseTo(14);
	expect(reaches[0]?.chargeWidth).toBeCloseTo(50);
	expect(reaches[0]?.outWidth).toBeCloseTo(20);
});

test("what a finding is about leads back to its source", () => {
	const fed = { ...plan, rails: plan.rails.map((r) => ({ ...r, fed_by: r.name === "cell" ? "battery" : "five" })) };
	expect([...wayOf(fed, ["thing:stick"])].sort()).toEqual(["battery", "cell", "five", "stick"]);
	expect([...wayOf(fed, ["thing:screen", "net:SUPPLY"])].sort()).toEqual(["battery", "cell", "screen"]);
	expect(wayOf(fed, [])).toEqual(new Set());
	const charged = fed.rails.map((r) =>
		r.name === "cell" ? { ...r, plugged: { port: "plug", limit_ma: 500, charge_ma: 1, play_ma: 1 } } : r,
	);
	expect(wayOf({ ...fed, rails: charged }, ["thing:plug"]).has("cell")).toBe(true);
});
