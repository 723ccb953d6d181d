import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useReckoner, useShown } from "../../app/reckoner";
import { settle, snap } from "../../canvas/snapping";
import { useSize } from "../../design/useSize";
import { useDesign } from "../../document/useDesign";
import type { Thing } from "./kinds";
import { freeLabels, heights } from "./labels";
import type { Hand } from "./looks";
import { OutlineHandles } from "./OutlineHandles";
import type { Shaping } from "./outline";
import { ReachArcs } from "./ReachArcs";
import { Ruler } from "./Ruler";
import { ThingDrawing } from "./ThingDrawing";

const STEP_MM = 0.5;
const PAD_MM = 4;
const ROW_MM = 26;
type Spot = { x: number; y: number };
type Drag = Spot & {
	name: string;
	dx: number;
	dy: number;
	lineX: number | null;
	lineY: number | null;
	moved: boolean;
};

/** A board of the device from the front at true proportion; every thing on it can be dragged in millimetres. */
export function Device({
	board,
	selected,
	select,
	show,
	hand,
	toMm: outside,
	shaping,
}: {
	board: Schemas["BoardOutline"];
	selected: string[];
	select: (names: string[]) => void;
	show: (board: string) => void;
	hand: Hand;
	toMm: RefObject<(x: number, y: number) => Spot | null>;
	shaping: Shaping | null;
}) {
	const { head, edit, move: moveThing } = useDesign();
	const reckon = useReckoner();
	const { shown } = useShown();
	const svg = useRef<SVGSVGElement>(null);
	const frame = useRef<HTMLDivElement>(null);
	const size = useSize(frame);
	const [drag, showDrag] = useState<Drag | null>(null);
	const [moved, setMoved] = useState<Record<string, Spot>>({});
	const [box, setBox] = useState<{ from: Spot; to: Spot } | null>(null);
	const inHand = useRef<Drag | null>(null);
	const setDrag = (next: Drag | null) => {
		inHand.current = next;
		showDrag(next);
	};
	const things = head.things.filter((t) => t.board === board.name);
	const xs = board.outline_mm.map((p) => p[0]);
	const ys = board.outline_mm.map((p) => p[1]);
	const [w, h] = [Math.max(...xs), Math.max(...ys)];
	const unplaced = things.filter((t) => !t.placed && t.y_mm < 0);
	const waiting = unplaced.length > 0;
	const bare = waiting && unplaced.every((t) => t.bodies.length === 0);
	const below = waiting ? ROW_MM : 7;
	const view = { w: w + 2 * PAD_MM, h: h + PAD_MM + below };
	const px = 1 / Math.max(1, Math.min(size.w / view.w, size.h / view.h));
	const outline = `M${board.outline_mm.map(([x, y]) => `${x},${h - y}`).join("L")}Z`;
	const together = selected.length > 1 ? selected : [];
	const spotOf = (thing: Thing): Spot => moved[thing.name] ?? { x: thing.x_mm, y: thing.y_mm };
	const labels = freeLabels(things, px);

	// biome-ignore lint/correctness/useExhaustiveDependencies: places that the hand gave are dropped when the server's come
	useEffect(() => setMoved({}), [head.version]);
	const seen = useRef<typeof shown>(null);
	useEffect(() => {
		if (shown === seen.current) return;
		seen.current = shown;
		const names = (shown?.about ?? []).map((about) => about.replace(/^thing:/, ""));
		const found = head.things.filter((t) => names.includes(t.name));
		if (found[0]) {
			show(found[0].board);
			select(found.map((t) => t.name));
		}
	}, [shown, select, show, head.things]);

	const toMm = (event: { clientX: number; clientY: number }): Spot => {
		const inverse = svg.current?.getScreenCTM()?.inverse();
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(inverse);
		return { x: point.x, y: h - point.y };
	};
	outside.current = (clientX, clientY) => {
		const point = toMm({ clientX, clientY });
		return point.x > 0 && point.x < w && point.y > 0 && point.y < h ? point : null;
	};
	const begin = (event: PointerEvent, thing: Thing) => {
		event.stopPropagation();
		const at = toMm(event);
		const anchor = spotOf(thing);
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		if (event.shiftKey)
			select(selected.includes(thing.name) ? selected.filter((s) => s !== thing.name) : [...selected, thing.name]);
		else if (!selected.includes(thing.name)) select([thing.name]);
		setDrag({
			name: thing.name,
			dx: anchor.x - at.x,
			dy: anchor.y - at.y,
			...anchor,
			lineX: null,
			lineY: null,
			moved: false,
		});
	};
	const move = (event: PointerEvent) => {
		const at = toMm(event);
		const held = inHand.current;
		if (box) return setBox({ ...box, to: at });
		if (!held) return reckon(`${at.x.toFixed(2)}, ${at.y.toFixed(2)} mm from the lower left corner of ${board.name}`);
		const others = things
			.filter((t) => t.placed && t.name !== held.name && !together.includes(t.name))
			.map((t) => ({ x: t.x_mm, y: t.y_mm }));
		const { point, lineX, lineY } = settle({ x: at.x + held.dx, y: at.y + held.dy }, others, STEP_MM, 0.7);
		setDrag({ ...held, ...point, lineX, lineY, moved: true });
		reckon(`${held.name} at ${point.x.toFixed(2)}, ${point.y.toFixed(2)} mm`);
	};
	const end = async () => {
		if (box) {
			const [l, r] = [Math.min(box.from.x, box.to.x), Math.max(box.from.x, box.to.x)];
			const [b, t] = [Math.min(box.from.y, box.to.y), Math.max(box.from.y, box.to.y)];
			setBox(null);
			if (r - l > 1 && t - b > 1)
				select(things.filter((x) => x.x_mm >= l && x.x_mm <= r && x.y_mm >= b && x.y_mm <= t).map((x) => x.name));
			return;
		}
		const done = inHand.current;
		if (!done) return;
		setDrag(null);
		const thing = things.find((t) => t.name === done.name);
		if (!done.moved || !thing) return;
		const from = { x: thing.x_mm, y: thing.y_mm };
		if (together.includes(done.name)) {
			const delta = { x: done.x - from.x, y: done.y - from.y };
			setMoved(
				Object.fromEntries(
					things
						.filter((t) => together.includes(t.name))
						.map((t) => [t.name, { x: t.x_mm + delta.x, y: t.y_mm + delta.y }]),
				),
			);
			if (!(await edit({ kind: "move-things", names: together, dx_mm: delta.x, dy_mm: delta.y }))) setMoved({});
			return;
		}
		setMoved({ ...moved, [done.name]: { x: done.x, y: done.y } });
		if (!(await moveThing(done.name, done.x, done.y))) setMoved({});
	};
	const keys = (event: KeyboardEvent, thing: Thing) => {
		const by = event.shiftKey ? 1 : 0.1;
		const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[event.key];
		if (way) {
			event.preventDefault();
			const from = spotOf(thing);
			const to = { x: snap(from.x + (way[0] ?? 0), 0.1), y: snap(from.y + (way[1] ?? 0), 0.1) };
			setMoved((now) => ({ ...now, [thing.name]: to }));
			void moveThing(thing.name, to.x, to.y).then((done) => !done && setMoved({}));
		} else if (event.key === "Enter" || event.key === " ") {
			event.preventDefault();
			select(event.shiftKey ? [...selected, thing.name] : [thing.name]);
		} else if (event.key === "Delete") {
			const names = selected.includes(thing.name) ? selected : [thing.name];
			void edit({ kind: "remove-things", names });
			frame.current?.focus();
		} else if (event.key.toLowerCase() === "r") {
			void edit({
				kind: "move-thing",
				name: thing.name,
				x_mm: thing.x_mm,
				y_mm: thing.y_mm,
				turn_deg: (thing.turn_deg + (event.shiftKey ? 15 : 90)) % 360,
			});
		} else if (event.key === "Escape") select([]);
	};
	const shiftOf = (thing: Thing): Spot => {
		const held = drag && (drag.name === thing.name || (together.includes(drag.name) && together.includes(thing.name)));
		const lead = held ? things.find((t) => t.name === drag.name) : undefined;
		if (held && lead) return { x: drag.x - lead.x_mm, y: drag.y - lead.y_mm };
		const spot = spotOf(thing);
		return { x: spot.x - thing.x_mm, y: spot.y - thing.y_mm };
	};
	return (
		<div ref={frame} tabIndex={-1} className="relative min-h-0 flex-1 p-2 outline-none">
			{hand !== "none" && (
				<p className="absolute inset-x-4 bottom-1 z-10 text-[12px] text-ink-2">Reach arcs: {head.reach_source}.</p>
			)}
			<svg
				ref={svg}
				role="application"
				aria-label="The device from the front"
				data-testid="device"
				className="h-full w-full touch-none select-none"
				viewBox={`${-PAD_MM} ${-PAD_MM} ${view.w} ${view.h}`}
				onPointerMove={move}
				onPointerUp={() => void end()}
				onPointerCancel={() => {
					setDrag(null);
					setBox(null);
				}}
				onPointerDown={(event) => {
					if (shaping) return shaping.pick(null);
					select([]);
					const at = toMm(event);
					setBox({ from: at, to: at });
				}}
			>
				<title>The device from the front</title>
				<path d={outline} fill="var(--color-board)" stroke="var(--color-ink)" strokeWidth={1.2 * px} />
				{board.name === head.boards[0]?.name && <ReachArcs arcs={head.reach} hand={hand} h={h} outline={outline} />}
				<Ruler w={w} h={h} px={px} />
				{waiting && (
					<text x={0} y={h + ROW_MM - 1.5} fontSize={11 * px} fill="var(--color-ink-2)">
						{bare
							? "It has no part of its own here: press its name to read or change it."
							: "Without a place; Loquet finds one, or drag it onto the board."}
					</text>
				)}
				{things.map((thing) => {
					const shift = shiftOf(thing);
					const [x, y] = [thing.x_mm + shift.x, thing.y_mm + shift.y];
					return (
						<g
							key={thing.name}
							tabIndex={0}
							role="button"
							aria-label={`${thing.label}${thing.far ? ", far side" : ""}, ${thing.title.toLowerCase()}, at ${x.toFixed(2)}, ${y.toFixed(2)} mm`}
							aria-pressed={selected.includes(thing.name)}
							data-thing={thing.name}
							data-x={x}
							data-y={y}
							transform={`translate(${x} ${h - y})`}
							className={`cursor-grab outline-none focus-visible:[&_.ring]:opacity-100 ${shaping ? "pointer-events-none opacity-40" : ""}`}
							onPointerDown={(event) => begin(event, thing)}
							onFocus={() => reckon(`${thing.label} at ${x.toFixed(2)}, ${y.toFixed(2)} mm`)}
							onKeyDown={(event) => keys(event, thing)}
						>
							<ThingDrawing
								thing={thing}
								px={px}
								selected={selected.includes(thing.name)}
								label={
									labels.get(thing.name) ?? (selected.includes(thing.name) ? (heights(thing, px)[0] ?? null) : null)
								}
							/>
						</g>
					);
				})}
				{shaping && <OutlineHandles board={board} h={h} px={px} toMm={toMm} {...shaping} />}
				{drag?.lineX != null && <Guide x1={drag.lineX} x2={drag.lineX} y1={-3} y2={h + 3} px={px} />}
				{drag?.lineY != null && <Guide x1={-3} x2={w + 3} y1={h - drag.lineY} y2={h - drag.lineY} px={px} />}
				{box && (
					<rect
						x={Math.min(box.from.x, box.to.x)}
						y={h - Math.max(box.from.y, box.to.y)}
						width={Math.abs(box.to.x - box.from.x)}
						height={Math.abs(box.to.y - box.from.y)}
						fill="#2b7f7818"
						stroke="var(--color-patina)"
						strokeWidth={px}
						pointerEvents="none"
					/>
				)}
			</svg>
		</div>
	);
}

function Guide({ px, ...ends }: { px: number; x1: number; x2: number; y1: number; y2: number }) {
	return <line {...ends} stroke="var(--color-patina)" strokeWidth={px} strokeDasharray={`${5 * px} ${3 * px}`} />;
}
