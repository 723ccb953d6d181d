import type { Board, Part, Side } from "./board";
import { linksOf } from "./boardGeometry";
import type { Span } from "./measuring";
import { type Kept, paintStill } from "./still";
import { toScreen, tracePad, type Viewport } from "./viewport";
import type { Leg, Track } from "./wiring";

export type Look = "near" | "far" | "through" | "plane near" | "plane far";
export type Held = { ref: string; dx: number; dy: number } | null;
export type Scene = {
	board: Board;
	look: Look;
	view: Viewport;
	net: string | null;
	selected: string | null;
	also: string[];
	span: Span | null;
	held: Held;
	mark: { x: number; y: number } | null;
	draft: { legs: Leg[]; vias: { x: number; y: number }[]; width: number; near: boolean } | null;
	track: Track | null;
	ring: { x: number; y: number }[] | null;
	/** The colours of nets while the device is switched on. */
	lit: ReadonlyMap<string, string> | null;
};

const COLOUR = {
	/** Copper on no net, while copper is coloured by its volts. */
	unlit: "#d9d2c0",
	near: "#B25A24",
	far: "#2B7F78",
	board: "#E9DFC4",
	boardFar: "#DDDCCB",
	ink: "#23211D",
	hole: "#F7F4EC",
	pick: "#174f4a",
	picked: "#F2D9A6",
	warn: "#A3262A",
	halo: "#FFFDF7D0",
};

/** The whole scene, from the board up: what does not move out of a kept picture, then what a hand holds. */
export function paintBoard(ctx: CanvasRenderingContext2D, scene: Scene, w: number, h: number, kept: Kept): void {
	const { board, look, view, net, selected, held } = scene;
	ctx.clearRect(0, 0, w, h);
	const about = [board, look, net, selected, scene.also.join(), held?.ref ?? "", view.scale, view.mirrored, scene.lit];
	paintStill(ctx, kept, about, view, w, h, (pen, room) =>
		paintAll(pen, { ...scene, view: { ...view, x: view.x + room.x, y: view.y + room.y } }),
	);
	if (look === "plane near" || look === "plane far") return;
	const front: Side = look === "far" ? "far" : "near";
	if (held) paintHeld(ctx, scene, front);
	paintDraft(ctx, scene);
	paintRing(ctx, scene);
	if (scene.span) paintSpan(ctx, view, scene.span);
	if (scene.mark) paintMark(ctx, view, scene.mark);
}

/** What does not move while a view is pulled about or a part is in the hand. */
function paintAll(ctx: CanvasRenderingContext2D, scene: Scene): void {
	const front: Side = scene.look === "far" ? "far" : "near";
	const back: Side = front === "near" ? "far" : "near";
	const lines = [scene.board.outline, ...scene.board.openings];
	fillRings(ctx, scene.view, lines, front === "near" ? COLOUR.board : COLOUR.boardFar);
	if (scene.look === "plane near" || scene.look === "plane far") paintPlane(ctx, scene, scene.look === "plane far");
	else {
		if (scene.look === "through") paintSide(ctx, scene, back, 0.38, true);
		paintSide(ctx, scene, front, 1, false);
		paintHoles(ctx, scene);
		paintParts(ctx, scene, front);
		if (!scene.held) paintLinks(ctx, scene);
		paintKept(ctx, scene, front);
		paintAreas(ctx, scene, front);
	}
	for (const line of lines) ring(ctx, scene.view, line, COLOUR.ink, 1.4);
}

/** The part in the hand with its pads and links, where the hand holds it. */
function paintHeld(ctx: CanvasRenderingContext2D, scene: Scene, front: Side): void {
	const { board, held } = scene;
	const only = {
		...scene,
		held: null,
		board: {
			...board,
			pieces: [],
			tracks: [],
			pads: board.pads
				.filter((p) => p.ref === held?.ref)
				.map((p) => ({ ...p, x: p.x + (held?.dx ?? 0), y: p.y + (held?.dy ?? 0) })),
			parts: board.parts
				.filter((p) => p.ref === held?.ref)
				.map((p) => ({ ...p, x: p.x + (held?.dx ?? 0), y: p.y + (held?.dy ?? 0) })),
		},
	};
	paintSide(ctx, only, front, 1, false);
	paintParts(ctx, only, front);
	paintLinks(ctx, scene);
}

function path(ctx: CanvasRenderingContext2D, view: Viewport, points: [number, number][]): void {
	points.forEach(([x, y], index) => {
		const p = toScreen(view, { x, y });
		if (index) ctx.lineTo(p.x, p.y);
		else ctx.moveTo(p.x, p.y);
	});
	ctx.closePath();
}

function fillRings(
	ctx: CanvasRenderingContext2D,
	view: Viewport,
	rings: [number, number][][],
	style: string | CanvasPattern,
): void {
	ctx.beginPath();
	for (const points of rings) path(ctx, view, points);
	ctx.fillStyle = style;
	ctx.fill("evenodd");
}

function ring(
	ctx: CanvasRenderingContext2D,
	view: Viewport,
	points: [number, number][],
	colour: string,
	width: number,
): void {
	ctx.beginPath();
	path(ctx, view, points);
	ctx.strokeStyle = colour;
	ctx.lineWidth = width;
	ctx.stroke();
}

/** Thin slanted lines: the pour, so that tracks stand out from it also in grey. */
function hatch(ctx: CanvasRenderingContext2D, colour: string, leaning: boolean): CanvasPattern | string {
	const tile = document.createElement("canvas");
	tile.width = tile.height = 6;
	const pen = tile.getContext("2d");
	if (!pen) return colour;
	pen.strokeStyle = colour;
	pen.lineWidth = 1;
	pen.beginPath();
	for (const shift of [-6, 0, 6]) {
		pen.moveTo(shift, leaning ? 0 : 6);
		pen.lineTo(shift + 6, leaning ? 6 : 0);
	}
	pen.stroke();
	return ctx.createPattern(tile, "repeat") ?? colour;
}

function paintSide(ctx: CanvasRenderingContext2D, scene: Scene, side: Side, strength: number, dashed: boolean): void {
	const { board, view, net, lit } = scene;
	const usual = lit ? COLOUR.unlit : side === "near" ? COLOUR.near : COLOUR.far;
	const colourAt = (name: string) => (net && name === net ? COLOUR.pick : (lit?.get(name) ?? usual));
	ctx.save();
	ctx.globalAlpha = strength * 0.55;
	for (const piece of board.pieces) {
		if (piece.far !== (side === "far")) continue;
		const colour = piece.net === "GROUND" ? (lit?.get(piece.net) ?? usual) : colourAt(piece.net);
		if (piece.net !== "GROUND") fillRings(ctx, view, piece.rings, colour);
		else fillRings(ctx, view, piece.rings, hatch(ctx, colour, side === "near"));
	}
	ctx.globalAlpha = strength;
	ctx.lineCap = "round";
	for (const track of board.tracks) {
		if (track.far !== (side === "far")) continue;
		const [a, b] = [toScreen(view, { x: track.x1, y: track.y1 }), toScreen(view, { x: track.x2, y: track.y2 })];
		ctx.beginPath();
		ctx.moveTo(a.x, a.y);
		ctx.lineTo(b.x, b.y);
		ctx.setLineDash(dashed ? [5, 4] : []);
		ctx.strokeStyle = colourAt(track.net);
		ctx.lineWidth = Math.max(1.2, track.w * view.scale) + (net && track.net === net ? 1.5 : 0);
		ctx.stroke();
		if (!track.by_hand) continue;
		ctx.strokeStyle = "#fffdf7";
		ctx.lineWidth = Math.max(0.6, track.w * view.scale * 0.3);
		ctx.stroke();
	}
	ctx.setLineDash([]);
	for (const pad of board.pads) {
		if (!pad.sides.includes(side) || scene.held?.ref === pad.ref) continue;
		ctx.fillStyle = colourAt(pad.net);
		tracePad(ctx, view, pad);
		ctx.fill();
		ctx.strokeStyle = "#fffdf7";
		ctx.lineWidth = 0.8;
		ctx.stroke();
	}
	ctx.restore();
}

/** A measured span: a line with crossed ends, its length beside it. */
function paintSpan(ctx: CanvasRenderingContext2D, view: Viewport, span: Span): void {
	const [a, b] = [toScreen(view, span.from), toScreen(view, span.to)];
	const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
	const [ux, uy] = [(-(b.y - a.y) / long) * 7, ((b.x - a.x) / long) * 7];
	ctx.strokeStyle = COLOUR.pick;
	ctx.lineWidth = 1.5;
	ctx.beginPath();
	for (const [from, to] of [
		[a, b],
		[
			{ x: a.x - ux, y: a.y - uy },
			{ x: a.x + ux, y: a.y + uy },
		],
		[
			{ x: b.x - ux, y: b.y - uy },
			{ x: b.x + ux, y: b.y + uy },
		],
	] as const) {
		ctx.moveTo(from.x, from.y);
		ctx.lineTo(to.x, to.y);
	}
	ctx.stroke();
	const words = `${Math.hypot(span.to.x - span.from.x, span.to.y - span.from.y).toFixed(3)} mm`;
	ctx.font = '600 13px "IBM Plex Mono", monospace';
	ctx.textAlign = "center";
	ctx.lineWidth = 4;
	ctx.strokeStyle = "#fffdf7";
	ctx.strokeText(words, (a.x + b.x) / 2, (a.y + b.y) / 2 - 8);
	ctx.fillStyle = COLOUR.pick;
	ctx.fillText(words, (a.x + b.x) / 2, (a.y + b.y) / 2 - 8);
}

/** The track in the hand, crossed out by dashes where it comes too near to something; and the one that was picked. */
function paintDraft(ctx: CanvasRenderingContext2D, scene: Scene): void {
	const { draft, view, track } = scene;
	ctx.save();
	ctx.lineCap = "round";
	if (track) {
		stroke(ctx, view, track, COLOUR.ink, track.w * view.scale + 5);
		stroke(ctx, view, track, COLOUR.picked, track.w * view.scale + 1);
	}
	for (const leg of draft?.legs ?? []) {
		ctx.setLineDash(draft?.near ? [4, 5] : leg.far ? [9, 4] : []);
		stroke(ctx, view, leg, draft?.near ? COLOUR.warn : COLOUR.pick, Math.max(2, (draft?.width ?? 0) * view.scale));
	}
	ctx.setLineDash([]);
	for (const via of draft?.vias ?? []) {
		const p = toScreen(view, via);
		ctx.beginPath();
		ctx.arc(p.x, p.y, (scene.board.via_mm / 2) * view.scale, 0, 2 * Math.PI);
		ctx.fillStyle = COLOUR.pick;
		ctx.fill();
	}
	ctx.restore();
}

function stroke(ctx: CanvasRenderingContext2D, view: Viewport, leg: Leg, colour: string, width: number): void {
	const [a, b] = [toScreen(view, { x: leg.x1, y: leg.y1 }), toScreen(view, { x: leg.x2, y: leg.y2 })];
	ctx.beginPath();
	ctx.moveTo(a.x, a.y);
	ctx.lineTo(b.x, b.y);
	ctx.strokeStyle = colour;
	ctx.lineWidth = width;
	ctx.stroke();
}

/** Areas that are to be poured with another net: their lines with their nets. */
function paintAreas(ctx: CanvasRenderingContext2D, scene: Scene, front: Side): void {
	ctx.save();
	ctx.setLineDash([1, 3]);
	for (const area of scene.board.areas) {
		if (area.far !== (front === "far")) continue;
		ring(ctx, scene.view, area.ring, COLOUR.ink, 1.2);
		const corners = area.ring.map(([x, y]) => toScreen(scene.view, { x, y }));
		wordsIn(ctx, area.net, Math.min(...corners.map((p) => p.x)), Math.min(...corners.map((p) => p.y)));
	}
	ctx.restore();
}

/** The line of an area in the hand, closed by dashes. */
function paintRing(ctx: CanvasRenderingContext2D, scene: Scene): void {
	if (!scene.ring) return;
	ctx.save();
	ctx.setLineDash([6, 4]);
	ring(
		ctx,
		scene.view,
		scene.ring.map(({ x, y }) => [x, y]),
		COLOUR.pick,
		2,
	);
	ctx.restore();
}

/** Areas kept free: a dashed line with words, crossed where no copper may lie either. */
function paintKept(ctx: CanvasRenderingContext2D, scene: Scene, front: Side): void {
	ctx.save();
	ctx.setLineDash([4, 3]);
	for (const kept of scene.board.kept) {
		if (!kept.copper && kept.far !== (front === "far")) continue;
		ring(ctx, scene.view, kept.ring, COLOUR.ink, 1);
		const [a, b, c, d] = kept.ring.map(([x, y]) => toScreen(scene.view, { x, y }));
		if (!a || !b || !c || !d) continue;
		if (kept.parts) wordsIn(ctx, `free of ${kept.words}`, Math.min(a.x, b.x, c.x, d.x), Math.min(a.y, b.y, c.y, d.y));
		if (!kept.copper) continue;
		ctx.beginPath();
		for (const [from, to] of [
			[a, c],
			[b, d],
		] as const) {
			ctx.moveTo(from.x, from.y);
			ctx.lineTo(to.x, to.y);
		}
		ctx.stroke();
	}
	ctx.restore();
}

/** What an area is for, at its upper left corner. */
function wordsIn(ctx: CanvasRenderingContext2D, words: string, x: number, y: number): void {
	ctx.font = '11px "IBM Plex Sans", sans-serif';
	ctx.textAlign = "left";
	ctx.textBaseline = "top";
	haloed(ctx, words, x + 4, y + 4, COLOUR.ink);
}

/** An inner plane, and every plated hole: joined to it where it is of its net, else within its gap. */
function paintPlane(ctx: CanvasRenderingContext2D, scene: Scene, far: boolean): void {
	const { board, view } = scene;
	const plane = board.planes.find((p) => p.far === far);
	if (!plane) return;
	const colour = far ? COLOUR.far : COLOUR.near;
	ctx.globalAlpha = 0.55;
	for (const piece of plane.pieces) fillRings(ctx, view, piece.rings, hatch(ctx, colour, !far));
	ctx.globalAlpha = 1;
	const disc = (x: number, y: number, d: number, fill: string) => {
		const p = toScreen(view, { x, y });
		ctx.beginPath();
		ctx.arc(p.x, p.y, (d / 2) * view.scale, 0, 2 * Math.PI);
		ctx.fillStyle = fill;
		ctx.fill();
	};
	const holes = [
		...board.vias.map((via) => ({ ...via, d: board.via_hole_mm })),
		...board.pads.filter((pad) => pad.drill).map((pad) => ({ ...pad, d: pad.drill })),
	];
	for (const hole of holes) {
		if (hole.net === plane.net) disc(hole.x, hole.y, hole.d + 0.4, colour);
		disc(hole.x, hole.y, hole.d, COLOUR.hole);
	}
	for (const hole of board.holes) disc(hole.x, hole.y, hole.d, COLOUR.hole);
}

function paintHoles(ctx: CanvasRenderingContext2D, scene: Scene): void {
	const { board, view, net } = scene;
	const disc = (x: number, y: number, d: number, colour: string) => {
		const p = toScreen(view, { x, y });
		ctx.beginPath();
		ctx.arc(p.x, p.y, (d / 2) * view.scale, 0, 2 * Math.PI);
		ctx.fillStyle = colour;
		ctx.fill();
	};
	for (const via of board.vias) {
		disc(via.x, via.y, board.via_mm, net && via.net === net ? COLOUR.pick : "#7d6a45");
		disc(via.x, via.y, board.via_hole_mm, COLOUR.hole);
	}
	for (const pad of board.pads) if (pad.drill) disc(pad.x, pad.y, pad.drill, COLOUR.hole);
	for (const hole of board.holes) {
		disc(hole.x, hole.y, hole.d, COLOUR.hole);
		const p = toScreen(view, hole);
		ctx.beginPath();
		ctx.arc(p.x, p.y, (hole.d / 2) * view.scale, 0, 2 * Math.PI);
		ctx.strokeStyle = COLOUR.ink;
		ctx.lineWidth = 1;
		ctx.stroke();
	}
}

function paintParts(ctx: CanvasRenderingContext2D, scene: Scene, front: Side): void {
	const { board, view, selected, also, held } = scene;
	for (const part of board.parts) {
		const mine = part.far === (front === "far");
		if ((!mine && scene.look !== "through") || held?.ref === part.ref) continue;
		ctx.globalAlpha = mine ? 1 : 0.35;
		const chosen = selected === part.ref || also.includes(part.ref);
		box(ctx, view, part, part.body, chosen ? COLOUR.pick : COLOUR.ink, chosen ? 2 : 0.9, mine ? [] : [4, 3]);
		if (chosen) box(ctx, view, part, part.yard, COLOUR.pick, 1, [3, 3]);
		label(ctx, view, part);
		ctx.globalAlpha = 1;
	}
}

function box(
	ctx: CanvasRenderingContext2D,
	view: Viewport,
	part: Part,
	rect: [number, number, number, number],
	colour: string,
	width: number,
	dash: number[],
): void {
	const a = toScreen(view, { x: part.x + rect[0], y: part.y + rect[1] });
	const b = toScreen(view, { x: part.x + rect[2], y: part.y + rect[3] });
	ctx.setLineDash(dash);
	ctx.strokeStyle = colour;
	ctx.lineWidth = width;
	ctx.strokeRect(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(b.x - a.x), Math.abs(b.y - a.y));
	ctx.setLineDash([]);
}

function label(ctx: CanvasRenderingContext2D, view: Viewport, part: Part): void {
	const size = Math.min(13, Math.max(8, view.scale * 0.95));
	const p = toScreen(view, {
		x: part.x + (part.body[0] + part.body[2]) / 2,
		y: part.y + (part.body[1] + part.body[3]) / 2,
	});
	ctx.font = `600 ${size}px "IBM Plex Sans", sans-serif`;
	ctx.textAlign = "center";
	ctx.textBaseline = "middle";
	haloed(ctx, part.ref, p.x, p.y, "#4A3F63");
}

/** Words that can be read over copper. */
function haloed(ctx: CanvasRenderingContext2D, words: string, x: number, y: number, colour: string): void {
	ctx.save();
	ctx.setLineDash([]);
	ctx.lineWidth = 3;
	ctx.strokeStyle = COLOUR.halo;
	ctx.strokeText(words, x, y);
	ctx.fillStyle = colour;
	ctx.fillText(words, x, y);
	ctx.restore();
}

function paintLinks(ctx: CanvasRenderingContext2D, scene: Scene): void {
	const links = scene.held
		? linksOf(scene.board, scene.held.ref, scene.held.dx, scene.held.dy)
		: scene.board.links.map((l) => ({ from: { x: l.x1, y: l.y1 }, to: { x: l.x2, y: l.y2 } }));
	ctx.strokeStyle = COLOUR.pick;
	ctx.lineWidth = scene.held ? 1.4 : 0.8;
	ctx.setLineDash([2, 3]);
	for (const link of links) {
		const [a, b] = [toScreen(scene.view, link.from), toScreen(scene.view, link.to)];
		ctx.beginPath();
		ctx.moveTo(a.x, a.y);
		ctx.lineTo(b.x, b.y);
		ctx.stroke();
	}
	ctx.setLineDash([]);
}

function paintMark(ctx: CanvasRenderingContext2D, view: Viewport, at: { x: number; y: number }): void {
	const p = toScreen(view, at);
	ctx.strokeStyle = "#A3262A";
	ctx.lineWidth = 2.5;
	ctx.beginPath();
	ctx.arc(p.x, p.y, 16, 0, 2 * Math.PI);
	ctx.stroke();
}
