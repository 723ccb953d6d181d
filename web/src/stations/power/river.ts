import type { Schemas } from "../../api/client";

export type Plan = Schemas["PowerPlan"];
/** A mode of the device, or the time in which its cell is charged and it is played. */
export type Mode = keyof Schemas["Currents"] | "charge";
export type Rail = Schemas["RailRow"];

/** A thing that takes current from a rail, or another rail that is made of it. */
export type Taker = { name: string; ma: number; origin: string; rail: boolean };

/** A load in the picture: its taker, its band on the rail, and the row in which its name stands. */
export type Branch = Taker & { from: number; width: number; row: number };

/** One rail drawn from what it is made of, on the left, to what it feeds, on the right; lengths in px. */
export type Reach = {
	rail: Rail;
	top: number;
	height: number;
	middle: number;
	inWidth: number;
	chargeWidth: number;
	outWidth: number;
	branches: Branch[];
};

/** What a list of currents gives in a mode: while the cell is charged the device is played. */
export function inMode(currents: Schemas["Currents"], mode: Mode): number {
	return currents[mode === "charge" ? "play" : mode];
}

/** What flows out of the source of a rail: while its cell is charged, all that the port gives. */
export function drawnOf(rail: Rail, mode: Mode): number {
	if (mode === "charge" && rail.plugged) return rail.plugged.play_ma + rail.plugged.charge_ma;
	return inMode(rail.drawn, mode);
}

/** Names on the way of what a finding is about: from a source over its rail to the things named. */
export function wayOf(plan: Plan, about: string[]): Set<string> {
	const names = new Set(about.filter((a) => a.startsWith("thing:")).map((a) => a.slice(6)));
	const rails = (name: string) => plan.rails.find((rail) => rail.name === name);
	for (const load of plan.loads) if (names.has(load.thing)) names.add(load.rail);
	for (const name of [...names])
		for (let rail = rails(name); rail; rail = rails(rail.parent)) {
			names.add(rail.name);
			names.add(rail.fed_by);
			if (!rail.parent) break;
		}
	for (const rail of plan.rails) if (rail.plugged && names.has(rail.plugged.port)) names.add(rail.name);
	return names;
}

export const ROW = 26;
const WIDEST = 64;
const LEAST_WIDTH = 1.5;
const APART = 34;
const HEAD = 92;

export function takersOf(plan: Plan, rail: Rail, mode: Mode): Taker[] {
	const things = plan.loads
		.filter((load) => load.rail === rail.name)
		.map((load) => ({ name: load.thing, ma: inMode(load.currents, mode), origin: load.origin, rail: false }));
	const rails = plan.rails
		.filter((other) => other.parent === rail.name)
		.map((other) => ({
			name: other.name,
			ma: inMode(other.drawn, mode),
			origin: `makes ${other.volts} V`,
			rail: true,
		}));
	return [...things, ...rails].sort((a, b) => b.ma - a.ma || a.name.localeCompare(b.name));
}

/** How many px a mA is: the strongest flow of the mode is as wide as the picture allows. */
export function pxPerMa(plan: Plan, mode: Mode): number {
	const most = Math.max(0, ...plan.rails.flatMap((rail) => [inMode(rail.load, mode), drawnOf(rail, mode)]));
	return most > 0 ? WIDEST / most : 0;
}

/** The rails below one another, each with its bands; widths are currents of the mode. */
export function layRiver(plan: Plan, mode: Mode): { reaches: Reach[]; height: number } {
	const scale = pxPerMa(plan, mode);
	const wide = (ma: number) => (ma > 0 ? Math.max(LEAST_WIDTH, ma * scale) : 0);
	let top = 10;
	const reaches = plan.rails.map((rail) => {
		const takers = takersOf(plan, rail, mode);
		const outWidth = takers.reduce((sum, taker) => sum + wide(taker.ma), 0);
		const height = Math.max(HEAD, takers.length * ROW, outWidth + 8);
		const middle = top + height / 2;
		let from = middle - outWidth / 2;
		const first = middle - (takers.length * ROW) / 2;
		const branches = takers.map((taker, index) => {
			const width = wide(taker.ma);
			const branch = { ...taker, from: from + width / 2, width, row: first + (index + 0.5) * ROW };
			from += width;
			return branch;
		});
		const charge = mode === "charge" ? (rail.plugged?.charge_ma ?? 0) : 0;
		const inWidth = wide(drawnOf(rail, mode) - charge);
		const reach = { rail, top, height, middle, inWidth, chargeWidth: wide(charge), outWidth, branches };
		top += height + APART + (charge ? 16 : 0);
		return reach;
	});
	return { reaches, height: top - APART + 10 };
}

/** A current as the trade writes it. */
export function current(ma: number): string {
	if (ma === 0) return "0 mA";
	if (ma >= 1000) return `${(ma / 1000).toFixed(2)} A`;
	if (ma < 0.1) return `${(ma * 1000).toFixed(ma < 0.01 ? 1 : 0)} µA`;
	return `${ma.toFixed(ma < 10 ? 1 : 0)} mA`;
}

/** A duration as a person says it. */
export function lasting(hours: number): string {
	if (hours < 1) return `${(hours * 60).toFixed(0)} min`;
	if (hours < 72) return `${hours.toFixed(1)} h`;
	if (hours < 24 * 365 * 2) return `${(hours / 24).toFixed(0)} days`;
	return `${(hours / 24 / 365).toFixed(1)} years`;
}
