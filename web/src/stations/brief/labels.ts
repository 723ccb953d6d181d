import type { Thing } from "./kinds";
import { extent } from "./ThingDrawing";

type Rect = { l: number; r: number; b: number; t: number };

/** Where labels find free room, as their height in mm: not over another label, nor over another thing's pieces. */
export function freeLabels(things: Thing[], px: number): Map<string, number> {
	const bodies = things
		.filter((t) => !t.far)
		.map((t) => {
			const e = extent(t);
			return { name: t.name, l: t.x_mm + e.left, r: t.x_mm + e.right, b: t.y_mm + e.bottom, t: t.y_mm + e.top };
		});
	const taken: Rect[] = [];
	const found = new Map<string, number>();
	const order = [...things].sort((a, b) => rank(a) - rank(b));
	for (const thing of order) {
		if (thing.group === "marks") continue;
		const half = (thing.label.length + (thing.far ? 10 : 0)) * 2.9 * px;
		for (const y of heights(thing, px)) {
			const rect = { l: thing.x_mm - half, r: thing.x_mm + half, b: y - 5 * px, t: y + 5 * px };
			const hits = (other: Rect) => rect.l < other.r && rect.r > other.l && rect.b < other.t && rect.t > other.b;
			if (taken.some(hits)) continue;
			if (!thing.cover_mm && bodies.some((body) => body.name !== thing.name && hits(body))) continue;
			taken.push(rect);
			found.set(thing.name, y);
			break;
		}
	}
	return found;
}

/** Heights at which a label may stand, the best first: a module and a cell carry it inside, small things below or above. */
export function heights(thing: Thing, px: number): number[] {
	const e = extent(thing);
	const [low, high] = [thing.y_mm + e.bottom, thing.y_mm + e.top];
	if (thing.cover_mm) return [(thing.cover_mm[1] + thing.cover_mm[3]) / 2];
	if (thing.mark === "cell")
		return [thing.y_mm, low + 7 * px, high - 7 * px, (thing.y_mm + high) / 2, (low + thing.y_mm) / 2];
	return [low - 9 * px, high + 7 * px];
}

/** What people look for first keeps its label. */
const ORDER = ["controls", "shows", "sounds", "brains", "ports", "feeds", "senses", "own", "marks"];
const rank = (thing: Thing): number => ORDER.indexOf(thing.group);
