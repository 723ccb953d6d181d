import type { Schemas } from "../../api/client";

export type Line = Schemas["DrawerLine"];
export type KitLine = Schemas["KitLine"];
export type KitState = KitLine["state"];

/** Pixels a millimetre at true size: CSS has 96 px an inch. */
export const TRUE_PX = 96 / 25.4;
const ROOM_PX = 150;

/** How large a part is drawn: true size where it fits its compartment, else the next of a half, a third and so on. */
export function scaleOf(line: Line): { px: number; part: number } {
	const [x0, y0, x1, y1] = boundsOf(line);
	const longest = Math.max(x1 - x0, y1 - y0, 0.1);
	const part = Math.max(1, Math.ceil((longest * TRUE_PX) / ROOM_PX));
	return { px: TRUE_PX / part, part };
}

/** Left, bottom, right and top of a part with its pads, in mm. */
export function boundsOf(line: Line): [number, number, number, number] {
	const [x, y, w, h] = line.body_mm as [number, number, number, number];
	const boxes = [{ x_mm: x, y_mm: y, w_mm: w, h_mm: h }, ...line.lands];
	return [
		Math.min(...boxes.map((b) => b.x_mm - b.w_mm / 2)),
		Math.min(...boxes.map((b) => b.y_mm - b.h_mm / 2)),
		Math.max(...boxes.map((b) => b.x_mm + b.w_mm / 2)),
		Math.max(...boxes.map((b) => b.y_mm + b.h_mm / 2)),
	];
}

/** Lines in drawers by what they are, in the order in which they first come. */
export function byKind(lines: Line[]): [string, Line[]][] {
	const found = new Map<string, Line[]>();
	for (const line of lines) found.set(line.kind, [...(found.get(line.kind) ?? []), line]);
	return [...found];
}

/** Kit lines by group. */
export function byGroup(lines: KitLine[]): [string, KitLine[]][] {
	const found = new Map<string, KitLine[]>();
	for (const line of lines) found.set(line.group, [...(found.get(line.group) ?? []), line]);
	return [...found];
}

/** What the parts on the boards cost in all with their spares, in cents, and how many lines have no price. */
export function priceOf(lines: Line[]): { cents: number; unknown: number } {
	return {
		cents: lines.reduce((sum, line) => sum + (line.price_cents ?? 0) * line.to_buy, 0),
		unknown: lines.filter((line) => line.price_cents === null).length,
	};
}

export const STAMPS: Record<Line["known"], [string, "clear" | "note" | "look" | "stop"]> = {
	drawing: ["drawing seen", "clear"],
	measurement: ["measured", "clear"],
	standard: ["standard", "clear"],
	"data set": ["open data", "clear"],
	"from memory": ["from memory", "look"],
	none: ["not known", "stop"],
};
