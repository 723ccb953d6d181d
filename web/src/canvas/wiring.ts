import type { Edit, Schemas } from "../api/client";
import type { Board, Pad, Side } from "./board";
import { fromSegment, hitBoard } from "./boardGeometry";
import { snap } from "./snapping";
import type { Place } from "./viewport";

/** A track in the hand: what is drawn so far, and where it goes on from. */
export type Draft = {
	net: string;
	width: number;
	far: boolean;
	from: Place;
	legs: Leg[];
	vias: Place[];
};
export type Leg = { far: boolean; x1: number; y1: number; x2: number; y2: number };
export type Track = Schemas["TrackView"];

const STEP_MM = 0.1;
const SLACK_MM = 0.05;

/** A draft that begins at a pad, a via or a track; nothing where there is no net. */
export function begin(board: Board, at: Place, side: Side): Draft | null {
	const hit = hitBoard(board, at, side, SLACK_MM);
	if (!hit?.net) return null;
	const tracks = board.tracks.filter((t) => t.net === hit.net).map((t) => t.w);
	const width = tracks.length ? Math.max(...tracks) : 0.2;
	return { net: hit.net, width, far: side === "far", from: settled(board, at, hit.net, side), legs: [], vias: [] };
}

/** The place itself on the lattice, or the middle of a pad or via of the net that lies there. */
export function settled(board: Board, at: Place, net: string, side: Side): Place {
	for (const pad of board.pads)
		if (pad.net === net && pad.sides.includes(side) && awayFromPad({ ...at, x2: at.x, y2: at.y }, pad) <= SLACK_MM)
			return { x: pad.x, y: pad.y };
	for (const via of board.vias)
		if (via.net === net && Math.hypot(via.x - at.x, via.y - at.y) <= board.via_mm / 2) return { x: via.x, y: via.y };
	return { x: snap(at.x, STEP_MM), y: snap(at.y, STEP_MM) };
}

/** From one place to another over a slanting piece at 45 degrees and a straight one. */
export function legs(from: Place, to: Place, far: boolean): Leg[] {
	const [dx, dy] = [to.x - from.x, to.y - from.y];
	const slant = Math.min(Math.abs(dx), Math.abs(dy));
	const middle = {
		x: round(from.x + Math.sign(dx) * slant),
		y: round(from.y + Math.sign(dy) * slant),
	};
	const pieces: [Place, Place][] = [
		[from, middle],
		[middle, to],
	];
	return pieces
		.filter(([a, b]) => a.x !== b.x || a.y !== b.y)
		.map(([a, b]) => ({ far, x1: a.x, y1: a.y, x2: b.x, y2: b.y }));
}

const round = (mm: number) => Math.round(mm * 1e6) / 1e6;

/** The draft led on to a place; `done` where it has come to copper of its net. */
export function ledOn(board: Board, draft: Draft, at: Place): { draft: Draft; done: boolean } {
	const side: Side = draft.far ? "far" : "near";
	const hit = hitBoard(board, at, side, SLACK_MM);
	const to = settled(board, at, draft.net, side);
	const added = legs(draft.from, to, draft.far);
	return {
		draft: { ...draft, from: to, legs: [...draft.legs, ...added] },
		done: hit?.net === draft.net && added.length > 0,
	};
}

/** The draft on the other side, through a via where it stands. */
export const turnedOver = (draft: Draft): Draft => ({
	...draft,
	far: !draft.far,
	vias: [...draft.vias, draft.from],
});

/** The draft without its last step. */
export function steppedBack(draft: Draft): Draft {
	const last = draft.legs.at(-1);
	const via = draft.vias.at(-1);
	if (via && via.x === draft.from.x && via.y === draft.from.y && last?.far !== draft.far)
		return { ...draft, far: !draft.far, vias: draft.vias.slice(0, -1) };
	if (!last) return draft;
	return { ...draft, from: { x: last.x1, y: last.y1 }, far: last.far, legs: draft.legs.slice(0, -1) };
}

const nm = (mm: number) => Math.round(mm * 1e6);

/** The edit that keeps a draft. */
export function drawn(board: string, draft: Draft): Schemas["DrawTracks"] {
	return {
		kind: "draw-tracks",
		board,
		tracks: draft.legs.map((leg) => ({ ...inNm(leg), net: draft.net, width_nm: nm(draft.width), by_hand: true })),
		vias: draft.vias.map((via) => ({ net: draft.net, x_nm: nm(via.x), y_nm: nm(via.y), by_hand: true })),
	};
}

/** The edit that cuts a track out. */
export const cut = (board: string, track: Track): Edit => ({
	kind: "cut-track",
	board,
	track: { ...inNm(track), net: track.net, width_nm: nm(track.w), by_hand: track.by_hand },
});

const inNm = (leg: Leg) => ({
	far: leg.far,
	x1_nm: nm(leg.x1),
	y1_nm: nm(leg.y1),
	x2_nm: nm(leg.x2),
	y2_nm: nm(leg.y2),
});

/** The edit by which these pieces stand for all that a net has on a board. */
export const laid = (board: string, net: string, tracks: Piece[], vias: Place[]): Edit => ({
	kind: "lay-net",
	board,
	net,
	tracks: tracks.map((t) => ({ ...inNm(t), net, width_nm: nm(t.w), by_hand: true })),
	vias: vias.map((via) => ({ net, x_nm: nm(via.x), y_nm: nm(via.y), by_hand: true })),
});

export type Piece = Leg & { w: number };

const SAME_MM = 1e-4;
const same = (a: Place, b: Place) => Math.abs(a.x - b.x) < SAME_MM && Math.abs(a.y - b.y) < SAME_MM;

/** The vias of a net's wiring, without those that only stitch its pour. */
export const viasOf = (board: Board, net: string) => board.vias.filter((v) => v.net === net && !v.stitch);

/** The end of a track of a net, on a side, that is nearest to a place and within reach of it. */
export function cornerAt(board: Board, at: Place, net: string, side: Side, reach: number): Place | null {
	const ends = board.tracks
		.filter((t) => t.net === net && t.far === (side === "far"))
		.flatMap((t) => [
			{ x: t.x1, y: t.y1 },
			{ x: t.x2, y: t.y2 },
		]);
	const away = (p: Place) => Math.hypot(p.x - at.x, p.y - at.y);
	const best = ends.sort((a, b) => away(a) - away(b))[0];
	return best && away(best) <= reach ? best : null;
}

/** A net with one of its corners at another place: what meets there comes along, on both sides where a via stands there. */
export function dragged(
	board: Board,
	net: string,
	side: Side,
	from: Place,
	to: Place,
): { tracks: Piece[]; vias: Place[]; moved: Leg[]; width: number } {
	const vias = viasOf(board, net);
	const through = vias.some((v) => same(v, from));
	const moved: Piece[] = [];
	const tracks = board.tracks
		.filter((t) => t.net === net)
		.map((t) => {
			const [one, two] = [same({ x: t.x1, y: t.y1 }, from), same({ x: t.x2, y: t.y2 }, from)];
			const piece: Piece = {
				far: t.far,
				w: t.w,
				x1: one ? to.x : t.x1,
				y1: one ? to.y : t.y1,
				x2: two ? to.x : t.x2,
				y2: two ? to.y : t.y2,
			};
			if ((one || two) && (through || t.far === (side === "far"))) {
				moved.push(piece);
				return piece;
			}
			return { far: t.far, w: t.w, x1: t.x1, y1: t.y1, x2: t.x2, y2: t.y2 };
		});
	return {
		tracks,
		vias: vias.map((v) => (same(v, from) ? to : { x: v.x, y: v.y })),
		moved,
		width: Math.max(0, ...moved.map((t) => t.w)),
	};
}

/** The track of a side that lies under a place. */
export const trackAt = (board: Board, at: Place, side: Side): Track | null =>
	board.tracks.find((t) => t.far === (side === "far") && fromSegment(at, t) <= t.w / 2 + SLACK_MM) ?? null;

type Gap = { gap: number; words: string; net: string; gives: boolean };

/** The gaps in mm between a piece of a draft and copper of other nets on its side; what the router laid can give way. */
function gapsOf(board: Board, draft: Pick<Draft, "net" | "width">, leg: Leg): Gap[] {
	const half = draft.width / 2;
	const side: Side = leg.far ? "far" : "near";
	const pads = board.pads
		.filter((pad) => pad.net !== draft.net && pad.sides.includes(side))
		.map((pad) => ({
			gap: awayFromPad({ x: leg.x1, y: leg.y1, x2: leg.x2, y2: leg.y2 }, pad) - half,
			words: `${pad.ref} pad ${pad.pad}`,
			net: pad.net,
			gives: false,
		}));
	const tracks = board.tracks
		.filter((track) => track.net !== draft.net && track.far === leg.far)
		.map((track) => ({
			gap: betweenSegments(leg, track) - half - track.w / 2,
			words: `a track of ${track.net}`,
			net: track.net,
			gives: !track.by_hand,
		}));
	const vias = board.vias
		.filter((via) => via.net !== draft.net)
		.map((via) => ({
			gap: fromSegment(via, leg) - half - board.via_mm / 2,
			words: `a via of ${via.net}`,
			net: via.net,
			gives: !via.by_hand,
		}));
	return [...pads, ...tracks, ...vias];
}

const NOTHING_NEAR: Gap = { gap: Number.POSITIVE_INFINITY, words: "", net: "", gives: false };

/** The least gap in mm between a piece of a draft and copper of other nets on its side, and what that is; where others are `giving` way only what stays counts. */
export function clearance(
	board: Board,
	draft: Pick<Draft, "net" | "width">,
	leg: Leg,
	giving = false,
): { gap: number; words: string } {
	const staying = gapsOf(board, draft, leg).filter((found) => !(giving && found.gives));
	const { gap, words } = staying.reduce((best, found) => (found.gap < best.gap ? found : best), NOTHING_NEAR);
	return { gap, words };
}

/** The nets whose routed ways lie nearer to a draft than the gap, and would have to give way. */
export const givers = (board: Board, draft: Pick<Draft, "net" | "width">, drawn: Leg[]): string[] => [
	...new Set(
		drawn
			.flatMap((leg) => gapsOf(board, draft, leg))
			.filter((found) => found.gives && found.gap < board.gap_mm - 1e-6)
			.map((found) => found.net),
	),
];

type Stroke = { x: number; y: number; x2: number; y2: number };

/** From a stroke to the rectangle of a pad, in the pad's own frame; 0 where they meet. */
function awayFromPad(stroke: Stroke, pad: Pad): number {
	const [c, s] = [Math.cos((pad.turn * Math.PI) / 180), Math.sin((pad.turn * Math.PI) / 180)];
	const own = (x: number, y: number) => ({
		x: (x - pad.x) * c + (y - pad.y) * s,
		y: (y - pad.y) * c - (x - pad.x) * s,
	});
	const [a, b] = [own(stroke.x, stroke.y), own(stroke.x2, stroke.y2)];
	const [w, h] = [pad.w / 2, pad.h / 2];
	if ([a, b].some((p) => Math.abs(p.x) <= w && Math.abs(p.y) <= h)) return 0;
	const corners: [number, number][] = [
		[-w, -h],
		[w, -h],
		[w, h],
		[-w, h],
	];
	const line = { x1: a.x, y1: a.y, x2: b.x, y2: b.y };
	return Math.min(
		...corners.map(([x, y], i) => {
			const [nx, ny] = corners[(i + 1) % 4] ?? [x, y];
			return betweenSegments(line, { x1: x, y1: y, x2: nx, y2: ny });
		}),
	);
}

type Segment = { x1: number; y1: number; x2: number; y2: number };

function betweenSegments(a: Segment, b: Segment): number {
	if (cross(a, b)) return 0;
	return Math.min(
		fromSegment({ x: a.x1, y: a.y1 }, b),
		fromSegment({ x: a.x2, y: a.y2 }, b),
		fromSegment({ x: b.x1, y: b.y1 }, a),
		fromSegment({ x: b.x2, y: b.y2 }, a),
	);
}

function cross(a: Segment, b: Segment): boolean {
	const side = (s: Segment, x: number, y: number) => (s.x2 - s.x1) * (y - s.y1) - (s.y2 - s.y1) * (x - s.x1);
	return side(a, b.x1, b.y1) * side(a, b.x2, b.y2) < 0 && side(b, a.x1, a.y1) * side(b, a.x2, a.y2) < 0;
}
