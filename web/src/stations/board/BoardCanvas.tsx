import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useRef, useState } from "react";
import { useReckoner } from "../../app/reckoner";
import type { Board, Part, Side } from "../../canvas/board";
import { hitBoard, linkChange, partAt, roomAround } from "../../canvas/boardGeometry";
import { type Span, spanWords, taken } from "../../canvas/measuring";
import { type Held, type Look, paintBoard } from "../../canvas/paintBoard";
import { type Fingers, pinched } from "../../canvas/pinch";
import { snap } from "../../canvas/snapping";
import type { Kept } from "../../canvas/still";
import { useCanvas } from "../../canvas/useCanvas";
import { fitView, type Place, toBoard, type Viewport, zoomAt } from "../../canvas/viewport";
import { clearance, cornerAt, cut, dragged, laid, type Track, trackAt } from "../../canvas/wiring";
import { useDesign } from "../../document/useDesign";
import { useArea } from "./useArea";
import { useWiring } from "./useWiring";

type Props = {
	board: Board;
	look: Look;
	net: string | null;
	pickNet: (net: string | null) => void;
	selected: string | null;
	select: (ref: string | null) => void;
	also: string[];
	pickAlso: (refs: string[]) => void;
	mark: { x: number; y: number } | null;
	hand: Hand;
	/** Whether what the router laid gives way to what is drawn. */
	giving: boolean;
	areaNet: string;
	pour: (ring: Place[]) => void;
	showSide: (side: Side) => void;
	track: Track | null;
	pickTrack: (track: Track | null) => void;
	lit: ReadonlyMap<string, string> | null;
};
/** What a press on the board does: draw a track, measure, draw the line of an area; or pick and move. */
export type Hand = "draw" | "measure" | "area" | null;
type Grip =
	| { part: Part; x: number; y: number }
	| { corner: Place; net: string }
	| { pan: true; x: number; y: number; view: Viewport };
const STEP_MM = 0.5;
const SNAP_PX = 12;
const LANDED_MS = 5000;
const CORNER_PX = 9;
const CORNER_MM = 0.1;
type Dragged = ReturnType<typeof dragged>;

export function BoardCanvas(props: Props) {
	const { board, look, net, pickNet, selected, select, also, pickAlso, mark, hand, track, pickTrack } = props;
	const [drawing, measuring, outlining] = [hand === "draw", hand === "measure", hand === "area"];
	const { edit, say } = useDesign();
	const reckon = useReckoner();
	const [view, setView] = useState<Viewport | null>(null);
	const grip = useRef<Grip | null>(null);
	const inHand = useRef<Held>(null);
	const [held, showHeld] = useState<Held>(null);
	const setHeld = (next: Held) => {
		inHand.current = next;
		showHeld(next);
	};
	const side: Side = look === "far" ? "far" : "near";
	const wiring = useWiring(board, side, props.showSide, props.giving);
	const area = useArea(board, side, props.areaNet, props.pour);
	const [span, setSpan] = useState<Span | null>(null);
	const spanning = useRef(false);
	// biome-ignore lint/correctness/useExhaustiveDependencies: a span belongs to the side on which it was measured
	useEffect(() => setSpan(null), [measuring, side]);
	const [corner, setCorner] = useState<{ net: string; from: Place; to: Place } | null>(null);
	const pulled = corner && dragged(board, corner.net, side, corner.from, corner.to);
	const tooNear = (moved: Dragged) =>
		moved.moved.some(
			(leg) => clearance(board, { net: corner?.net ?? "", width: moved.width }, leg).gap < board.gap_mm - 1e-6,
		);
	const bent = pulled && { legs: pulled.moved, vias: [], width: pulled.width, near: tooNear(pulled) };
	const draft = drawing ? wiring.shown : bent;
	const xs = board.outline.map((p) => p[0]);
	const ys = board.outline.map((p) => p[1]);
	const [w, h] = [Math.max(...xs), Math.max(...ys)];
	const kept = useRef<Kept>({ still: null });
	const paint = useCallback(
		(ctx: CanvasRenderingContext2D, cw: number, ch: number) => {
			if (view)
				paintBoard(
					ctx,
					{
						board,
						look,
						view,
						net,
						selected,
						also,
						held,
						mark,
						draft,
						track,
						span,
						ring: outlining ? area.shown : null,
						lit: props.lit,
					},
					cw,
					ch,
					kept.current,
				);
		},
		[board, look, view, net, selected, also, held, mark, draft, track, span, outlining, area.shown, props.lit],
	);
	const { ref, size } = useCanvas(paint);
	// A view that a hand has zoomed or moved stays as it is when the canvas grows or shrinks, until another board or side is shown.
	const byHand = useRef("");
	const boardSide = `${w} ${h} ${side}`;
	useEffect(() => {
		if (size.w && byHand.current !== boardSide) setView(fitView(w, h, size.w, size.h, side === "far"));
	}, [w, h, size, side, boardSide]);
	// From the view as it is by then: several events of a hand come between two pictures.
	const lookAt = (next: (now: Viewport) => Viewport) => {
		byHand.current = boardSide;
		setView((now) => now && next(now));
	};

	const at = (event: PointerEvent) => {
		const box = event.currentTarget.getBoundingClientRect();
		return { x: event.clientX - box.left, y: event.clientY - box.top };
	};
	const fingers = useRef<Fingers>(new Map());
	const down = (event: PointerEvent) => {
		if (!view) return;
		event.currentTarget.setPointerCapture(event.pointerId);
		const place = at(event);
		if (event.pointerType === "touch") fingers.current.set(event.pointerId, place);
		if (fingers.current.size > 1) {
			grip.current = null;
			return setHeld(null);
		}
		const spot = toBoard(view, place);
		if (measuring && !event.shiftKey) {
			const end = taken(board, spot, SNAP_PX / view.scale);
			spanning.current = !spanning.current;
			return setSpan(spanning.current ? { from: end, to: end } : span && { ...span, to: end });
		}
		if (drawing && !event.shiftKey) return wiring.press(spot);
		if (outlining && !event.shiftKey) return area.press(spot, SNAP_PX / view.scale);
		const part = partAt(board, spot, side);
		if (part && selected && event.shiftKey) {
			if (part.ref !== selected)
				pickAlso(also.includes(part.ref) ? also.filter((ref) => ref !== part.ref) : [...also, part.ref]);
			return;
		}
		const end = net && !part && !event.shiftKey ? cornerAt(board, spot, net, side, CORNER_PX / view.scale) : null;
		if (end && net) {
			pickTrack(trackAt(board, spot, side));
			grip.current = { corner: end, net };
			return;
		}
		const hit = hitBoard(board, spot, side, 0.05);
		pickNet(hit?.net || null);
		pickTrack(hit && !hit.part ? trackAt(board, spot, side) : null);
		select(part?.ref ?? null);
		pickAlso([]);
		grip.current = part && !event.shiftKey ? { part, x: spot.x, y: spot.y } : { pan: true, ...place, view };
	};
	const move = (event: PointerEvent) => {
		if (!view) return;
		const place = at(event);
		if (fingers.current.has(event.pointerId)) {
			const before = [...fingers.current.values()];
			fingers.current.set(event.pointerId, place);
			if (before.length > 1) {
				const after = [...fingers.current.values()];
				return lookAt((now) => pinched(now, before, after));
			}
		}
		const spot = toBoard(view, place);
		const held = grip.current;
		if (held && "pan" in held)
			return lookAt(() => ({ ...held.view, x: held.view.x + place.x - held.x, y: held.view.y + place.y - held.y }));
		if (held && "corner" in held) {
			const to = { x: snap(spot.x, CORNER_MM), y: snap(spot.y, CORNER_MM) };
			if (Math.hypot(to.x - held.corner.x, to.y - held.corner.y) < 1e-6) return setCorner(null);
			setCorner({ net: held.net, from: held.corner, to });
			return reckon(
				`The corner of ${held.net} at ${to.x.toFixed(2)}, ${to.y.toFixed(2)} mm; ${board.gap_mm.toFixed(2)} mm are asked on all sides`,
			);
		}
		if (held) {
			const to = { x: snap(held.part.x + spot.x - held.x, STEP_MM), y: snap(held.part.y + spot.y - held.y, STEP_MM) };
			const moved = { ref: held.part.ref, dx: to.x - held.part.x, dy: to.y - held.part.y };
			if (Math.hypot(spot.x - held.x, spot.y - held.y) < 0.25) return;
			setHeld(moved);
			const room = roomAround(board, held.part, moved.dx, moved.dy);
			const links = linkChange(board, held.part, moved.dx, moved.dy);
			const words =
				links.before || links.after ? `; links ${links.before.toFixed(1)} to ${links.after.toFixed(1)} mm` : "";
			return reckon(
				`${held.part.ref} at ${to.x.toFixed(2)}, ${to.y.toFixed(2)} mm; ${room.gap < 0 ? `overlaps ${room.ref} by ${(-room.gap).toFixed(2)} mm` : `${room.gap.toFixed(2)} mm clear of ${room.ref}`}${words}`,
			);
		}
		if (measuring && span) {
			const now = spanning.current ? { ...span, to: taken(board, spot, SNAP_PX / view.scale) } : span;
			setSpan(now);
			return reckon(spanWords(now));
		}
		if (measuring) return reckon("Press the first place to measure from; the second one ends it.");
		if (drawing) return wiring.lookAhead(spot);
		if (outlining) return area.lookAhead(spot);
		const hit = hitBoard(board, spot, side, 0.05);
		const name = hit
			? `; ${hit.words}${hit.net ? `, net ${hit.net}, gap at least ${board.gap_mm.toFixed(2)} mm` : ""}`
			: "";
		reckon(`${spot.x.toFixed(2)}, ${spot.y.toFixed(2)} mm${name}`);
	};
	const up = async (event: PointerEvent) => {
		fingers.current.delete(event.pointerId);
		const done = inHand.current;
		grip.current = null;
		if (corner && pulled) {
			const kept = await edit(laid(board.board, corner.net, pulled.tracks, pulled.vias));
			if (!kept) setCorner(null);
			return;
		}
		const part = board.parts.find((p) => p.ref === done?.ref);
		if (!done || !part) return setHeld(null);
		const room = roomAround(board, part, done.dx, done.dy);
		if (!(await seat(part, part.x + done.dx, part.y + done.dy, part.turn))) return setHeld(null);
		if (room.gap < 0)
			say({
				kind: "refused",
				sentence: `${part.ref} now lies on ${room.ref}, over it by ${(-room.gap).toFixed(2)} mm.`,
				wayOut: "Move one of them, or undo.",
			});
		setTimeout(() => inHand.current === done && setHeld(null), LANDED_MS);
	};
	// What was dropped stays where the hand left it until the board that holds it there has come.
	// biome-ignore lint/correctness/useExhaustiveDependencies: only a new board lets go
	useEffect(() => {
		setHeld(null);
		setCorner(null);
	}, [board]);
	const seat = (part: Part, x: number, y: number, turn: number) =>
		edit({
			kind: "seat-part",
			role: part.role,
			x_mm: Math.round(x * 1000) / 1000,
			y_mm: Math.round(y * 1000) / 1000,
			turn_deg: (turn % 360) as 0 | 90 | 180 | 270,
		});
	// The wheel, and two fingers on a pad (a wheel with Ctrl), zoom the board and not the page, so the listener must not be passive.
	const zoom = useRef((_: globalThis.WheelEvent) => {});
	zoom.current = (event) => {
		event.preventDefault();
		const box = (event.currentTarget as Element).getBoundingClientRect();
		const place = { x: event.clientX - box.left, y: event.clientY - box.top };
		const factor = event.ctrlKey ? Math.exp(-event.deltaY / 100) : event.deltaY < 0 ? 1.15 : 1 / 1.15;
		lookAt((now) => zoomAt(now, place, factor));
	};
	useEffect(() => {
		const canvas = ref.current;
		const turn = (event: globalThis.WheelEvent) => zoom.current(event);
		canvas?.addEventListener("wheel", turn, { passive: false });
		return () => canvas?.removeEventListener("wheel", turn);
	}, [ref]);
	const key = (event: KeyboardEvent) => {
		if ((drawing && wiring.key(event.key)) || (outlining && area.key(event.key))) return event.preventDefault();
		if (event.key === "Delete" && track) return void edit(cut(board.board, track));
		const parts = board.parts.filter((p) => p.far === (side === "far"));
		const index = parts.findIndex((p) => p.ref === selected);
		const part = parts[index];
		const by = event.shiftKey ? 1 : 0.1;
		const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[event.key];
		if (event.key === "Tab" && parts.length) {
			const next = parts[index + (event.shiftKey ? -1 : 1)];
			if (!next) return;
			event.preventDefault();
			select(next.ref);
			reckon(`${next.ref} ${next.purpose}`);
		} else if (way && part) {
			event.preventDefault();
			const flip = side === "far" ? -1 : 1;
			void seat(part, part.x + (way[0] ?? 0) * flip, part.y + (way[1] ?? 0), part.turn);
		} else if (event.key.toLowerCase() === "q" && part) void seat(part, part.x, part.y, part.turn + 90);
		else if (event.key === "Escape") {
			select(null);
			pickAlso([]);
		} else if ((event.key === "+" || event.key === "-") && view)
			lookAt((now) => zoomAt(now, { x: size.w / 2, y: size.h / 2 }, event.key === "+" ? 1.25 : 0.8));
		else if (event.key === "Home" && size.w) {
			byHand.current = "";
			setView(fitView(w, h, size.w, size.h, side === "far"));
		}
	};
	return (
		<canvas
			ref={ref}
			tabIndex={0}
			role="application"
			aria-label={`The board, ${look} view. ${drawing ? "Drawing: press pads and corners; Space changes the side, Backspace steps back, Enter ends." : outlining ? "Drawing the line of an area: press its corners; Backspace steps back, Enter closes it, Escape gives it up." : "Tab walks the parts, arrows nudge, Q turns, Delete cuts a picked track."}`}
			data-testid="board-canvas"
			data-parts={board.parts.length}
			data-tracks={board.tracks.length}
			data-pieces={board.pieces.length}
			data-scale={view?.scale}
			data-left={view?.x}
			data-base={view?.y}
			data-held={held?.ref}
			data-span={span ? spanWords(span) : undefined}
			data-picked={[selected, ...also].filter(Boolean).join(" ")}
			data-drawing={wiring.draft?.net}
			data-by-hand={board.tracks.filter((t) => t.by_hand).length}
			className={`min-h-0 w-full flex-1 touch-none ${hand ? "cursor-crosshair" : ""}`}
			onPointerDown={down}
			onPointerMove={move}
			onPointerUp={(event) => void up(event)}
			onPointerCancel={(event) => {
				fingers.current.delete(event.pointerId);
				grip.current = null;
				setHeld(null);
				setCorner(null);
			}}
			onKeyDown={key}
		/>
	);
}
