import type { Schemas } from "../../api/client";

export type Stack = Schemas["StackView"];
export type Piece = Schemas["StackBody"];
export type Section = Schemas["SectionView"];
export type Spot = [number, number];
export type Line = { from: Spot; to: Spot };

export const PAINT: Record<string, { fill: string; words: string }> = {
	part: { fill: "#c9bfa6", words: "parts" },
	leads: { fill: "var(--color-copper)", words: "leads" },
	module: { fill: "#8fb8b2", words: "glass" },
	"screw head": { fill: "#57534a", words: "screws" },
	post: { fill: "#b9ad93", words: "posts" },
	loose: { fill: "#a9b6c6", words: "lying loose" },
	wires: { fill: "var(--color-legend)", words: "wires, cables" },
	board: { fill: "#d8c894", words: "board" },
	wall: { fill: "#ddd6c7", words: "shell" },
};

export const paintOf = (sort: string) => PAINT[sort]?.fill ?? "#c9bfa6";

/** A line across the middle of a board, a little longer than it is. */
export function acrossMiddle(stack: Stack): Line {
	const [left, bottom, right, top] = boundsOf(stack.inside as Spot[]);
	const y = (bottom + top) / 2;
	return { from: [left - 4, y], to: [right + 4, y] };
}

/** The line across a board through a place. */
export function through(stack: Stack, x: number, y: number, upright: boolean): Line {
	const [left, bottom, right, top] = boundsOf(stack.inside as Spot[]);
	return upright ? { from: [x, bottom - 4], to: [x, top + 4] } : { from: [left - 4, y], to: [right + 4, y] };
}

export function boundsOf(ring: readonly Spot[]): [number, number, number, number] {
	const xs = ring.map(([x]) => x);
	const ys = ring.map(([, y]) => y);
	return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** A line with one of its ends, or the whole of it, moved; places are kept to half a millimetre. */
export function dragged(line: Line, what: "from" | "to" | "both", dx: number, dy: number): Line {
	const moved = ([x, y]: Spot): Spot => [half(x + dx), half(y + dy)];
	return {
		from: what === "to" ? line.from : moved(line.from),
		to: what === "from" ? line.to : moved(line.to),
	};
}

const half = (value: number) => Math.round(value * 2) / 2;

/** How far a body is lifted when the device is taken apart, in mm: by what layer it belongs to. */
export function lifted(piece: Pick<Piece, "sort" | "far" | "through">, apart: number): number {
	if (piece.sort === "loose") return piece.far ? -apart : apart;
	if (piece.sort === "screw head") return 1.5 * apart;
	if (piece.sort === "post") return -2 * apart;
	return 0;
}

export const path = (ring: readonly Spot[], top: number) =>
	`M${ring.map(([x, y]) => `${x.toFixed(2)},${(top - y).toFixed(2)}`).join("L")}Z`;
