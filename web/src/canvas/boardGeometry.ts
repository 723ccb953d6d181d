import { inRings } from "./areas";
import type { Board, Hit, Pad, Part, Side } from "./board";
import type { Place } from "./viewport";

/** What lies under a place on a side: pad before via before track before part before a poured area of another net than ground. */
export function hitBoard(board: Board, at: Place, side: Side, slack: number): Hit | null {
	for (const pad of board.pads)
		if (pad.sides.includes(side) && within(pad, at, slack))
			return { net: pad.net, words: `${pad.ref} pad ${pad.pad}`, part: pad.ref };
	for (const via of board.vias)
		if (Math.hypot(via.x - at.x, via.y - at.y) <= board.via_mm / 2 + slack)
			return { net: via.net, words: `via, hole ${board.via_hole_mm.toFixed(2)} mm`, part: "" };
	for (const track of board.tracks)
		if (track.far === (side === "far") && fromSegment(at, track) <= track.w / 2 + slack)
			return { net: track.net, words: `track ${track.w.toFixed(2)} mm wide`, part: "" };
	const part = partAt(board, at, side);
	if (part) return { net: "", words: `${part.ref} ${part.purpose}`, part: part.ref };
	const poured = board.pieces.find((p) => p.net !== "GROUND" && p.far === (side === "far") && inRings(p.rings, at));
	return poured ? { net: poured.net, words: "poured area", part: "" } : null;
}

function within(pad: Pad, at: Place, slack: number): boolean {
	const [dx, dy] = [at.x - pad.x, at.y - pad.y];
	const [c, s] = [Math.cos((pad.turn * Math.PI) / 180), Math.sin((pad.turn * Math.PI) / 180)];
	return Math.abs(dx * c + dy * s) <= pad.w / 2 + slack && Math.abs(dy * c - dx * s) <= pad.h / 2 + slack;
}

/** The smallest part whose courtyard holds a place. */
export function partAt(board: Board, at: Place, side: Side): Part | null {
	const inside = board.parts.filter((part) => {
		const [left, bottom, right, top] = part.yard;
		return (
			part.far === (side === "far") &&
			at.x >= part.x + left &&
			at.x <= part.x + right &&
			at.y >= part.y + bottom &&
			at.y <= part.y + top
		);
	});
	return inside.sort((a, b) => area(a) - area(b))[0] ?? null;
}

const area = (part: Part) => (part.yard[2] - part.yard[0]) * (part.yard[3] - part.yard[1]);

export function fromSegment(at: Place, s: { x1: number; y1: number; x2: number; y2: number }): number {
	const [dx, dy] = [s.x2 - s.x1, s.y2 - s.y1];
	const along =
		dx || dy ? Math.max(0, Math.min(1, ((at.x - s.x1) * dx + (at.y - s.y1) * dy) / (dx * dx + dy * dy))) : 0;
	return Math.hypot(at.x - s.x1 - along * dx, at.y - s.y1 - along * dy);
}

/** How far, in mm, a part shifted by (dx, dy) keeps from the nearest courtyard of its side, and whose; negative where they overlap. */
export function roomAround(board: Board, part: Part, dx: number, dy: number): { gap: number; ref: string } {
	let best = { gap: Number.POSITIVE_INFINITY, ref: "" };
	const mine = shifted(part, dx, dy);
	for (const other of board.parts) {
		if (other.ref === part.ref || other.far !== part.far) continue;
		const theirs = shifted(other, 0, 0);
		const gapX = Math.max(theirs[0] - mine[2], mine[0] - theirs[2]);
		const gapY = Math.max(theirs[1] - mine[3], mine[1] - theirs[3]);
		const gap = gapX > 0 && gapY > 0 ? Math.hypot(gapX, gapY) : Math.max(gapX, gapY);
		if (gap < best.gap) best = { gap, ref: other.ref };
	}
	return best;
}

const shifted = (part: Part, dx: number, dy: number): [number, number, number, number] => [
	part.x + part.yard[0] + dx,
	part.y + part.yard[1] + dy,
	part.x + part.yard[2] + dx,
	part.y + part.yard[3] + dy,
];

/** From each connected pad of a shifted part to the nearest pad of its net on another part; ground is left to the pour. */
export function linksOf(board: Board, ref: string, dx: number, dy: number): { from: Place; to: Place; net: string }[] {
	const links: { from: Place; to: Place; net: string }[] = [];
	for (const pad of board.pads) {
		if (pad.ref !== ref || !pad.net || pad.net === "GROUND") continue;
		const from = { x: pad.x + dx, y: pad.y + dy };
		let to: Place | null = null;
		for (const other of board.pads)
			if (
				other.ref !== ref &&
				other.net === pad.net &&
				(!to || Math.hypot(other.x - from.x, other.y - from.y) < Math.hypot(to.x - from.x, to.y - from.y))
			)
				to = { x: other.x, y: other.y };
		if (to) links.push({ from, to, net: pad.net });
	}
	return links;
}

/** How far the pads of a part lie from the nearest other pads of their nets, ground left out, before and after it is moved by so much; in mm. */
export function linkChange(board: Board, part: Part, dx: number, dy: number): { before: number; after: number } {
	const found = { before: 0, after: 0 };
	for (const pad of board.pads) {
		if (pad.ref !== part.ref || !pad.net || pad.net === "GROUND") continue;
		const others = board.pads.filter((p) => p.net === pad.net && p.ref !== part.ref);
		if (!others.length) continue;
		const nearest = (x: number, y: number) => Math.min(...others.map((p) => Math.hypot(p.x - x, p.y - y)));
		found.before += nearest(pad.x, pad.y);
		found.after += nearest(pad.x + dx, pad.y + dy);
	}
	return found;
}
