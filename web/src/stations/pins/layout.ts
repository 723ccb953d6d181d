export type Spot = { x: number; y: number };
export type Aim = { signal: string; words: string; toward: Spot | null };
export type Node = Spot & { signal: string; words: string; anchor: "start" | "end" | "middle" };
export type Size = { w: number; h: number };

const LINE = 17;
const LETTER = 6.4;
const EDGE = 6;

/** Names of signals around a picture of `size`, each on the side and in the order in which its target lies, seen from the middle; y runs down. */
export function arrange(aims: Aim[], size: Size): Node[] {
	const rows = Math.max(1, Math.floor((size.h - 4 * LINE) / LINE));
	const sides: Record<"left" | "right" | "top" | "bottom", Aim[]> = { left: [], right: [], top: [], bottom: [] };
	const nowhere: Aim[] = [];
	for (const aim of aims) {
		if (!aim.toward) nowhere.push(aim);
		else sides[sideOf(aim.toward, size)].push(aim);
	}
	for (const name of ["top", "bottom"] as const) {
		const fits = row(sides[name], size.w);
		for (const aim of fits.rest) sides[(aim.toward?.x ?? 0) < 0 ? "left" : "right"].push(aim);
		sides[name] = fits.taken;
	}
	for (const aim of nowhere) sides[sides.left.length < sides.right.length ? "left" : "right"].push(aim);
	level(sides.left, sides.right, rows);
	return [
		...row(sides.top, size.w).nodes.map((node) => ({ ...node, y: LINE })),
		...row(sides.bottom, size.w).nodes.map((node) => ({ ...node, y: size.h - EDGE })),
		...column(sides.left, size, EDGE, "start"),
		...column(sides.right, size, size.w - EDGE, "end"),
	];
}

/** The side of the picture that a direction meets. */
export function sideOf(toward: Spot, size: Size): "left" | "right" | "top" | "bottom" {
	if (Math.abs(toward.x) * size.h >= Math.abs(toward.y) * size.w) return toward.x < 0 ? "left" : "right";
	return toward.y < 0 ? "top" : "bottom";
}

/** Moves what a full side cannot hold to the other one. */
function level(left: Aim[], right: Aim[], rows: number) {
	while (left.length > rows && right.length < rows) right.push(left.pop() as Aim);
	while (right.length > rows && left.length < rows) left.push(right.pop() as Aim);
}

function column(aims: Aim[], size: Size, x: number, anchor: "start" | "end"): Node[] {
	const sorted = [...aims].sort((a, b) => slope(a) - slope(b));
	const step = Math.min(LINE * 1.6, (size.h - 4 * LINE) / Math.max(1, sorted.length));
	const top = size.h / 2 - (step * (sorted.length - 1)) / 2;
	return sorted.map((aim, index) => ({
		signal: aim.signal,
		words: aim.words,
		anchor,
		x,
		y: top + index * step,
	}));
}

/** How far up or down a direction points, from -1 to 1. */
function slope({ toward }: Aim): number {
	return toward ? toward.y / (Math.abs(toward.x) + Math.abs(toward.y) || 1) : 1;
}

function row(aims: Aim[], width: number): { nodes: Node[]; taken: Aim[]; rest: Aim[] } {
	const sorted = [...aims].sort((a, b) => (a.toward?.x ?? 0) - (b.toward?.x ?? 0));
	const room = width * 0.62;
	const taken: Aim[] = [];
	const rest: Aim[] = [];
	let used = 0;
	for (const aim of sorted) {
		const wide = aim.words.length * LETTER + 18;
		if (used + wide <= room) {
			taken.push(aim);
			used += wide;
		} else rest.push(aim);
	}
	let at = (width - used) / 2;
	const nodes = taken.map((aim): Node => {
		const wide = aim.words.length * LETTER + 18;
		at += wide;
		return { signal: aim.signal, words: aim.words, anchor: "middle", x: at - wide / 2, y: 0 };
	});
	return { nodes, taken, rest };
}

export type Link = { from: Spot; to: Spot };

/** Where straight links cross each other. */
export function crossings(links: Link[]): Spot[] {
	const found: Spot[] = [];
	links.forEach((a, index) => {
		for (const b of links.slice(index + 1)) {
			const met = meet(a, b);
			if (met) found.push(met);
		}
	});
	return found;
}

function meet(a: Link, b: Link): Spot | null {
	const ax = a.to.x - a.from.x;
	const ay = a.to.y - a.from.y;
	const bx = b.to.x - b.from.x;
	const by = b.to.y - b.from.y;
	const across = ax * by - ay * bx;
	if (Math.abs(across) < 1e-9) return null;
	const t = ((b.from.x - a.from.x) * by - (b.from.y - a.from.y) * bx) / across;
	const u = ((b.from.x - a.from.x) * ay - (b.from.y - a.from.y) * ax) / across;
	if (t <= 0 || t >= 1 || u <= 0 || u >= 1) return null;
	return { x: a.from.x + t * ax, y: a.from.y + t * ay };
}

export type Leg = Spot & { number: string; out: Spot };

/** Pins drawn to scale about the middle, the outermost ones with the direction in which they leave the body; y runs down. */
export function legs(
	pins: { number: string; x_mm: number; y_mm: number }[],
	most: Size,
): { legs: Leg[]; scale: number } {
	const w = Math.max(...pins.map((p) => Math.abs(p.x_mm)), 0.1);
	const h = Math.max(...pins.map((p) => Math.abs(p.y_mm)), 0.1);
	const scale = Math.min(most.w / (2 * w), most.h / (2 * h));
	return {
		scale,
		legs: pins.map((pin) => ({
			number: pin.number,
			x: pin.x_mm * scale,
			y: -pin.y_mm * scale,
			out: outward(pin, pins),
		})),
	};
}

/** Away from the nearest pin's row: across the line that a pin and its neighbour stand in, away from the middle. */
function outward(
	pin: { number: string; x_mm: number; y_mm: number },
	pins: { number: string; x_mm: number; y_mm: number }[],
): Spot {
	let near = pins.find((p) => p !== pin);
	let best = Number.POSITIVE_INFINITY;
	for (const other of pins) {
		const apart = Math.hypot(other.x_mm - pin.x_mm, other.y_mm - pin.y_mm);
		if (other !== pin && apart > 0 && apart < best) {
			best = apart;
			near = other;
		}
	}
	if (!near) return { x: 1, y: 0 };
	const x = -(near.y_mm - pin.y_mm) / best;
	const y = (near.x_mm - pin.x_mm) / best;
	const away = x * pin.x_mm + y * pin.y_mm < 0 ? -1 : 1;
	return { x: x * away, y: -y * away };
}
