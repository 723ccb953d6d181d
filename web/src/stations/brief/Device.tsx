import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { SizedThing } from "../../api/client";
import { useReckoner, useShown } from "../../app/reckoner";
import { settle, snap } from "../../canvas/snapping";
import { useDesign } from "../../document/useDesign";
import type { Hand } from "./BriefStation";
import { roleOf } from "./controlKinds";
import { ReachArcs } from "./ReachArcs";
import { ThingDrawing } from "./ThingDrawing";

const STEP_MM = 0.5;
const PAD_MM = 5;
type Drag = {
	thing: string;
	dx: number;
	dy: number;
	x: number;
	y: number;
	lineX: number | null;
	lineY: number | null;
	moved: boolean;
};

/** The device from the front at true proportion; everything the brief places can be dragged in millimetres. */
export function Device({
	selected,
	select,
	hand,
	toMm: outside,
}: {
	selected: string[];
	select: (things: string[]) => void;
	hand: Hand;
	toMm: RefObject<(x: number, y: number) => { x: number; y: number } | null>;
}) {
	const { head, edit } = useDesign();
	const reckon = useReckoner();
	const { shown } = useShown();
	const svg = useRef<SVGSVGElement>(null);
	const [drag, showDrag] = useState<Drag | null>(null);
	const inHand = useRef<Drag | null>(null);
	const setDrag = (next: Drag | null) => {
		inHand.current = next;
		showDrag(next);
	};
	const xs = head.outline_mm.map((p) => p[0]);
	const ys = head.outline_mm.map((p) => p[1]);
	const [w, h] = [Math.max(...xs), Math.max(...ys)];
	const k = Math.max(1, w / 80);
	const anchors = anchorsOf(head.brief);
	const controls = new Set(head.brief.controls.map(roleOf));
	const picked = selected.filter((name) => controls.has(name));
	const together = picked.length > 1 ? picked : [];
	const outline = `M${head.outline_mm.map(([x, y]) => `${x},${h - y}`).join("L")}Z`;

	const seen = useRef<typeof shown>(null);
	useEffect(() => {
		if (shown === seen.current) return;
		seen.current = shown;
		const known = anchorsOf(head.brief);
		const named = (shown?.about ?? []).map((about) => {
			const place = /^brief:controls\[(\d+)\]/.exec(about);
			const control = place ? head.brief.controls[Number(place[1])] : undefined;
			return control ? roleOf(control) : about.replace(/^brief:/, "");
		});
		const things = [...new Set(named.map((name) => name.split(":").slice(0, 2).join(":")))];
		if (things.some((name) => name in known)) select(things.filter((name) => name in known));
	}, [shown, select, head.brief]);

	const toMm = (event: { clientX: number; clientY: number }) => {
		const box = svg.current?.getScreenCTM()?.inverse();
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(box);
		return { x: point.x, y: h - point.y };
	};
	outside.current = (clientX, clientY) => {
		const point = toMm({ clientX, clientY });
		return point.x > 0 && point.x < w && point.y > 0 && point.y < h ? point : null;
	};
	const begin = (event: PointerEvent, thing: SizedThing) => {
		event.stopPropagation();
		const at = toMm(event);
		const anchor = anchors[thing.thing] ?? { x: thing.x_mm, y: thing.y_mm };
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		const isControl = controls.has(thing.thing);
		if (event.shiftKey && isControl)
			select(selected.includes(thing.thing) ? selected.filter((s) => s !== thing.thing) : [...selected, thing.thing]);
		else if (!selected.includes(thing.thing)) select([thing.thing]);
		setDrag({
			thing: thing.thing,
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
		const drag = inHand.current;
		if (!drag) return reckon(`${at.x.toFixed(2)}, ${at.y.toFixed(2)} mm from the lower left corner`);
		const others = Object.entries(anchors)
			.filter(([name]) => name !== drag.thing && controls.has(name) && !together.includes(name))
			.map(([, p]) => p);
		const { point, lineX, lineY } = settle({ x: at.x + drag.dx, y: at.y + drag.dy }, others, STEP_MM, 0.7);
		setDrag({ ...drag, ...point, lineX, lineY, moved: true });
		reckon(`${drag.thing.split(":").at(-1)} at ${point.x.toFixed(2)}, ${point.y.toFixed(2)} mm`);
	};
	const end = async () => {
		const done = inHand.current;
		if (!done) return;
		const from = anchors[done.thing];
		if (done.moved && together.includes(done.thing) && from) {
			const names = head.brief.controls.filter((c) => together.includes(roleOf(c))).map((c) => c.name);
			await edit({ kind: "move-controls", names, dx_mm: done.x - from.x, dy_mm: done.y - from.y });
		} else if (done.moved) await edit({ kind: "move-thing", thing: done.thing, x_mm: done.x, y_mm: done.y });
		setDrag(null);
	};
	const nudge = (event: KeyboardEvent, thing: SizedThing) => {
		const by = event.shiftKey ? 1 : 0.1;
		const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[event.key];
		const anchor = anchors[thing.thing];
		if (way && anchor) {
			event.preventDefault();
			void edit({
				kind: "move-thing",
				thing: thing.thing,
				x_mm: snap(anchor.x + (way[0] ?? 0), 0.1),
				y_mm: snap(anchor.y + (way[1] ?? 0), 0.1),
			});
		} else if (event.key === "Delete" && controls.has(thing.thing)) {
			void edit({ kind: "remove-control", name: thing.thing.slice(thing.thing.indexOf(":") + 1) });
		} else if (event.key === "Escape") select([]);
	};
	return (
		<div className="relative min-h-0 flex-1 p-3">
			{hand !== "none" && (
				<p className="absolute inset-x-4 bottom-1 text-[12px] text-ink-2">Reach arcs: {head.reach_source}.</p>
			)}
			<svg
				ref={svg}
				role="application"
				aria-label="The device from the front"
				data-testid="device"
				className="h-full w-full touch-none select-none"
				viewBox={`${-PAD_MM * k} ${-PAD_MM * k} ${w + 2 * PAD_MM * k} ${h + 2 * PAD_MM * k}`}
				onPointerMove={move}
				onPointerUp={() => void end()}
				onPointerCancel={() => setDrag(null)}
				onPointerDown={() => select([])}
			>
				<title>The device from the front</title>
				<path d={outline} fill="var(--color-board)" stroke="var(--color-ink)" strokeWidth={0.25} />
				<ReachArcs arcs={head.reach} hand={hand} h={h} outline={outline} />
				<Ruler w={w} h={h} k={k} />
				{head.things.map((thing) => {
					const inHand =
						drag && (drag.thing === thing.thing || (together.includes(drag.thing) && together.includes(thing.thing)));
					const from = inHand ? anchors[drag.thing] : undefined;
					const anchor = anchors[thing.thing];
					const shift = inHand && from ? { x: drag.x - from.x, y: drag.y - from.y } : { x: 0, y: 0 };
					return (
						<g
							key={`${thing.thing}${thing.kind}${thing.name}`}
							tabIndex={0}
							role="button"
							aria-label={`${thing.name} at ${thing.x_mm.toFixed(2)}, ${thing.y_mm.toFixed(2)} mm`}
							data-thing={thing.thing}
							data-x={anchor?.x}
							data-y={anchor?.y}
							transform={`translate(${thing.x_mm + shift.x} ${h - thing.y_mm - shift.y})`}
							className="cursor-grab outline-none focus-visible:[&_.ring]:opacity-100"
							onPointerDown={(event) => begin(event, thing)}
							onFocus={() => reckon(`${thing.name} at ${thing.x_mm.toFixed(2)}, ${thing.y_mm.toFixed(2)} mm`)}
							onKeyDown={(event) => nudge(event, thing)}
						>
							<ThingDrawing thing={thing} k={k} selected={selected.includes(thing.thing)} />
						</g>
					);
				})}
				{drag?.lineX != null && (
					<line
						x1={drag.lineX}
						x2={drag.lineX}
						y1={-3}
						y2={h + 3}
						stroke="var(--color-patina)"
						strokeWidth={0.15}
						strokeDasharray="1 0.7"
					/>
				)}
				{drag?.lineY != null && (
					<line
						y1={h - drag.lineY}
						y2={h - drag.lineY}
						x1={-3}
						x2={w + 3}
						stroke="var(--color-patina)"
						strokeWidth={0.15}
						strokeDasharray="1 0.7"
					/>
				)}
			</svg>
		</div>
	);
}

/** The point of each thing that an edit moves (a screen's header, the middle of the cells). */
function anchorsOf(brief: ReturnType<typeof useDesign>["head"]["brief"]): Record<string, { x: number; y: number }> {
	const found: Record<string, { x: number; y: number }> = {};
	for (const c of brief.controls) found[roleOf(c)] = { x: c.x_mm, y: c.y_mm };
	for (const hole of brief.fixing_holes ?? []) found[`hole:${hole.name}`] = { x: hole.x_mm, y: hole.y_mm };
	for (const name of ["screen", "buzzer", "light", "power", "power_switch", "programming_port"] as const) {
		const thing = brief[name];
		if (thing && thing.x_mm != null && thing.y_mm != null) found[name] = { x: thing.x_mm, y: thing.y_mm };
	}
	return found;
}

function Ruler({ w, h, k }: { w: number; h: number; k: number }) {
	const ticks = Array.from({ length: Math.floor(w / 10) + 1 }, (_, i) => i * 10);
	return (
		<g stroke="var(--color-ink-2)" strokeWidth={0.12}>
			<line x1={0} x2={w} y1={h + 2} y2={h + 2} />
			{ticks
				.filter((x) => w - x > 4 * k)
				.map((x) => (
					<g key={x}>
						<line x1={x} x2={x} y1={h + 1.4} y2={h + 2.6} />
						<text
							x={x}
							y={h + 2.9 + 1.7 * k}
							fontSize={1.7 * k}
							textAnchor="middle"
							stroke="none"
							fill="var(--color-ink-2)"
							className="figure"
						>
							{x}
						</text>
					</g>
				))}
			<text
				x={w + 1}
				y={h + 2.9 + 1.7 * k}
				fontSize={1.7 * k}
				textAnchor="start"
				stroke="none"
				fill="var(--color-ink-2)"
			>
				mm
			</text>
		</g>
	);
}
