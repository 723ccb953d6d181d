import type { Schemas } from "../../api/client";

export type On = Schemas["OnView"];
export type Load = Schemas["Load"];

/** A circuit as it is lit: volts and milliamperes by net, the load of each part. */
export type Lit = {
	nodes: ReadonlyMap<string, { volts: number; ma: number }>;
	loads: ReadonlyMap<string, Load>;
	most: number;
};

const THIN = 0.22;
const THICK = 1.5;
const LEAST_MA = 0.1;
const MOST_MA = 1000;
const QUIET_V = 0.05;
/** From nothing to the most volts there: steel, patina, copper. */
const RAMP = [
	[119, 116, 107],
	[77, 106, 142],
	[34, 106, 100],
	[178, 90, 36],
] as const;
const BELOW = "#4a3f63";

export function litBy(on: On): Lit | null {
	if (!on.sound) return null;
	const nodes = new Map(on.nodes.map((n) => [n.net, { volts: n.volts, ma: n.current_ma }]));
	const loads = new Map(on.loads.map((l) => [l.ref, l]));
	return { nodes, loads, most: Math.max(1, ...on.nodes.map((n) => n.volts)) };
}

/** The colour of a wire at so many volts, of so many at the most; below ground it is plum. */
export function colourOf(volts: number, most: number): string {
	if (volts < -QUIET_V) return BELOW;
	const at = Math.min(1, Math.max(0, volts / most)) * (RAMP.length - 1);
	const low = Math.min(RAMP.length - 2, Math.floor(at));
	const a = RAMP[low];
	const b = RAMP[low + 1];
	if (!a || !b) return BELOW;
	const mixed = a.map((v, i) => Math.round(v + (at - low) * ((b[i] ?? v) - v)));
	return `rgb(${mixed.join(", ")})`;
}

/** How wide a wire is drawn, in mm, by the logarithm of its current in mA. */
export function widthOf(ma: number): number {
	if (ma <= LEAST_MA) return THIN;
	const share = Math.log(ma / LEAST_MA) / Math.log(MOST_MA / LEAST_MA);
	return THIN + (THICK - THIN) * Math.min(1, share);
}

/** Volts for a person. */
export const saidVolts = (volts: number) => `${(Math.abs(volts) < 0.005 ? 0 : volts).toFixed(2)} V`;

/** A current for a person, given in mA. */
export function saidMa(ma: number): string {
	const size = Math.abs(ma);
	if (size < 0.0005) return "0 mA";
	if (size < 1) return `${(ma * 1000).toPrecision(size < 0.01 ? 1 : 3)} µA`;
	return `${size < 100 ? ma.toFixed(1) : ma.toFixed(0)} mA`;
}

/** The text by which the server knows a state. */
export function stateText(on: Pick<On, "sources" | "acts" | "mode" | "on" | "key">): string {
	const there = on.sources.filter((s) => s.level).map((s) => `${s.name}=${s.level}`);
	const words = [there.join("+") || "nothing", on.acts, on.mode, on.on ? "on" : "off"];
	if (on.key) words.push(`key=${on.key}`);
	return words.join(",");
}
