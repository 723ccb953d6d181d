import type { Schemas } from "../../api/client";

export type Point = Schemas["Point"];

/** How a curve is drawn in a frame: seconds to the right, °C up. */
export function scaleOf(points: readonly Point[], wide: number, high: number) {
	const most = Math.max(300, ...points.map((p) => p.s));
	const top = Math.max(260, ...points.map((p) => p.c));
	const x = (s: number) => (s / most) * wide;
	const y = (c: number) => high - (c / (top * 1.05)) * high;
	return { x, y, most, top };
}

export const line = (points: readonly Point[], x: (s: number) => number, y: (c: number) => number) =>
	points.map((p, i) => `${i ? "L" : "M"}${x(p.s).toFixed(1)} ${y(p.c).toFixed(1)}`).join("");

/** A reading as a person types it: `4k7`, `10 kΩ`, `3.3`, `open`; null where it is none. */
export function readingOf(text: string): number | null {
	const plain = text
		.trim()
		.toLowerCase()
		.replace(",", ".")
		.replace(/\s+(?=[a-zµω])/g, "");
	if (["open", "ol", "o.l."].includes(plain)) return 2e7;
	if (plain === "yes") return 1;
	if (plain === "no") return 0;
	const inner = /^(\d+)([kmr])(\d+)$/.exec(plain);
	if (inner) return Number(`${inner[1]}.${inner[3]}`) * ({ k: 1e3, m: 1e6, r: 1 }[inner[2] ?? "r"] ?? 1);
	const found = /^(-?\d+(?:\.\d+)?(?:e-?\d+)?)([pnuµmkg]?)(ω|ohm|v|f|m)?$/.exec(plain);
	if (!found) return null;
	const power = { p: 1e-12, n: 1e-9, u: 1e-6, µ: 1e-6, m: 1e-3, k: 1e3, g: 1e9 }[found[2] ?? ""] ?? 1;
	const mega = found[2] === "m" && found[3] !== "v" && found[3] !== "f" ? 1e6 : power;
	return Number(found[1]) * mega;
}
