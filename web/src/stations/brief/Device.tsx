import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import type { SizedThing } from "../../api/client";
import { useReckoner, useShown } from "../../app/reckoner";
import { settle, snap } from "../../canvas/snapping";
import { useDesign } from "../../document/useDesign";

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
export function Device({ selected, select }: { selected: string | null; select: (thing: string | null) => void }) {
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
	const anchors = anchorsOf(head.brief);

	useEffect(() => {
		const about = shown?.about.find((a) => a.startsWith("button:") || a.startsWith("brief:"));
		if (about)
			select(about.replace(/^brief:(controls\[\d+\] '(.*)')?/, (_, all, name) => (all ? `button:${name}` : "")));
	}, [shown, select]);

	const toMm = (event: PointerEvent) => {
		const box = svg.current?.getScreenCTM()?.inverse();
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(box);
		return { x: point.x, y: h - point.y };
	};
	const begin = (event: PointerEvent, thing: SizedThing) => {
		event.stopPropagation();
		const at = toMm(event);
		const anchor = anchors[thing.thing] ?? { x: thing.x_mm, y: thing.y_mm };
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		select(thing.thing);
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
			.filter(([name]) => name !== drag.thing && name.startsWith("button:"))
			.map(([, p]) => p);
		const { point, lineX, lineY } = settle({ x: at.x + drag.dx, y: at.y + drag.dy }, others, STEP_MM, 0.7);
		setDrag({ ...drag, ...point, lineX, lineY, moved: true });
		reckon(`${drag.thing.replace("button:", "")} at ${point.x.toFixed(2)}, ${point.y.toFixed(2)} mm`);
	};
	const end = async () => {
		const done = inHand.current;
		if (!done) return;
		if (done.moved) await edit({ kind: "move-thing", thing: done.thing, x_mm: done.x, y_mm: done.y });
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
		} else if (event.key === "Delete" && thing.thing.startsWith("button:")) {
			void edit({ kind: "remove-button", name: thing.thing.slice(7) });
		} else if (event.key === "Escape") select(null);
	};
	return (
		<div className="min-h-0 flex-1 p-3">
			<svg
				ref={svg}
				role="application"
				aria-label="The device from the front"
				data-testid="device"
				className="h-full w-full touch-none"
				viewBox={`${-PAD_MM} ${-PAD_MM} ${w + 2 * PAD_MM} ${h + 2 * PAD_MM}`}
				onPointerMove={move}
				onPointerUp={() => void end()}
				onPointerDown={() => select(null)}
			>
				<title>The device from the front</title>
				<path
					d={`M${head.outline_mm.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
					fill="var(--color-board)"
					stroke="var(--color-ink)"
					strokeWidth={0.25}
				/>
				<Ruler w={w} h={h} />
				{head.things.map((thing) => {
					const held = drag?.thing === thing.thing ? drag : null;
					const anchor = anchors[thing.thing];
					const shift = held && anchor ? { x: held.x - anchor.x, y: held.y - anchor.y } : { x: 0, y: 0 };
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
							<ThingDrawing thing={thing} selected={selected === thing.thing} />
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
	for (const c of brief.controls) found[`button:${c.name}`] = { x: c.x_mm, y: c.y_mm };
	for (const hole of brief.fixing_holes ?? []) found[`hole:${hole.name}`] = { x: hole.x_mm, y: hole.y_mm };
	for (const name of ["screen", "buzzer", "light", "power", "power_switch", "programming_port"] as const) {
		const thing = brief[name];
		if (thing && thing.x_mm != null && thing.y_mm != null) found[name] = { x: thing.x_mm, y: thing.y_mm };
	}
	return found;
}

function Ruler({ w, h }: { w: number; h: number }) {
	const ticks = Array.from({ length: Math.floor(w / 10) + 1 }, (_, i) => i * 10);
	return (
		<g stroke="var(--color-ink-2)" strokeWidth={0.12}>
			<line x1={0} x2={w} y1={h + 2} y2={h + 2} />
			{ticks
				.filter((x) => w - x > 3 || x === w)
				.map((x) => (
					<g key={x}>
						<line x1={x} x2={x} y1={h + 1.4} y2={h + 2.6} />
						<text
							x={x}
							y={h + 4.6}
							fontSize={1.7}
							textAnchor="middle"
							stroke="none"
							fill="var(--color-ink-2)"
							className="figure"
						>
							{x}
						</text>
					</g>
				))}
			<text x={w} y={h + 4.6} fontSize={1.7} textAnchor="end" stroke="none" fill="var(--color-ink-2)">
				mm
			</text>
		</g>
	);
}

function ThingDrawing({ thing, selected }: { thing: SizedThing; selected: boolean }) {
	const { w_mm: w, h_mm: h } = thing;
	const edge = selected ? "var(--color-patina)" : "var(--color-ink)";
	const line = { stroke: edge, strokeWidth: selected ? 0.5 : 0.22 };
	const small = Math.min(1.9, Math.max(1.3, w / (thing.name.length * 0.62)));
	return (
		<>
			<rect
				className="ring opacity-0"
				x={-w / 2 - 0.8}
				y={-h / 2 - 0.8}
				width={w + 1.6}
				height={h + 1.6}
				fill="none"
				stroke="var(--color-patina)"
				strokeWidth={0.4}
			/>
			<Body thing={thing} line={line} />
			{thing.kind === "button" && (
				<text y={h / 2 + 2.2} fontSize={2} textAnchor="middle" fill="var(--color-ink)">
					{thing.name}
				</text>
			)}
			{(thing.kind === "glass" || thing.kind === "buzzer") && (
				<text y={0.7} fontSize={small} textAnchor="middle" fill="var(--color-ink-2)">
					{thing.name}
				</text>
			)}
			{thing.kind === "cell" && (
				<text y={0.5} textAnchor="middle" fontSize={1.6} fill="#6b6556">
					AAA {thing.name}, far side
				</text>
			)}
		</>
	);
}

function Body({ thing, line }: { thing: SizedThing; line: { stroke: string; strokeWidth: number } }) {
	const { w_mm: w, h_mm: h } = thing;
	const box = { x: -w / 2, y: -h / 2, width: w, height: h };
	switch (thing.kind) {
		case "button":
			return (
				<>
					<rect {...box} rx={0.8} fill="var(--color-card)" {...line} />
					<circle r={Math.min(w, h) * 0.3} fill="#d9d2bf" stroke={line.stroke} strokeWidth={0.2} />
				</>
			);
		case "cell":
			return (
				<rect
					{...box}
					rx={1}
					fill="#00000008"
					{...line}
					strokeWidth={0.15}
					strokeDasharray="1.2 0.8"
					stroke={line.strokeWidth > 0.3 ? line.stroke : "#8d8676"}
				/>
			);
		case "glass":
			return <rect {...box} rx={0.6} fill="#dfe3da" {...line} />;
		case "hole":
			return (
				<>
					<circle r={w / 2} fill="var(--color-card)" {...line} strokeWidth={0.15} strokeDasharray="0.6 0.4" />
					<circle r={w / 4} fill="var(--color-paper)" stroke={line.stroke} strokeWidth={0.25} />
				</>
			);
		case "light":
			return <circle r={1.2} fill="#e3a64a" {...line} />;
		default:
			return <rect {...box} rx={0.3} fill="#cfc7b2" {...line} />;
	}
}
