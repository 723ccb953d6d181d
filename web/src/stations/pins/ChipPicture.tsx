import { type PointerEvent, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useReckoner } from "../../app/reckoner";
import { useSize } from "../../design/useSize";
import { useDesign } from "../../document/useDesign";
import { LineKey } from "./LineKey";
import { arrange, crossings, type Leg, legs, type Node, type Spot } from "./layout";
import { styleOf } from "./lines";

type View = Schemas["PinsView"];
type Pin = Schemas["ChipPinView"];
const FILL: Record<string, string> = {
	supply: "#c9a39b",
	gives: "#c9a39b",
	ground: "#8d8676",
	reset: "#cdbfe0",
	boot: "#cdbfe0",
	regulator: "#c9a39b",
};

/** The chip in the middle, turned as it will sit; the signals of the device around it, each in the direction in which it really goes. */
export function ChipPicture({
	view,
	signal,
	pick,
}: {
	view: View;
	signal: string | null;
	pick: (signal: string | null) => void;
}) {
	const reckon = useReckoner();
	const { edit } = useDesign();
	const svg = useRef<SVGSVGElement>(null);
	const frame = useRef<HTMLDivElement>(null);
	const { w, h } = useSize(frame);
	const [pulled, setPulled] = useState<{ pin: Pin; from: Spot; to: Spot } | null>(null);
	const drawn = useMemo(() => {
		const most = Math.max(120, Math.min(w * 0.42, h * 0.56));
		return legs(view.pins, { w: most, h: most });
	}, [view.pins, w, h]);
	const nodes = useMemo(
		() =>
			arrange(
				view.signals.map((s) => ({
					signal: s.signal,
					words: short(s.title),
					toward: s.toward_mm ? { x: s.toward_mm[0], y: -s.toward_mm[1] } : null,
				})),
				{ w, h },
			),
		[view.signals, w, h],
	);
	const able = new Set(view.signals.find((s) => s.signal === signal)?.pins ?? []);
	const leg = new Map(drawn.legs.map((l) => [l.number, l]));
	const middle = { x: w / 2, y: h / 2 };
	const links = view.signals.flatMap((s) => {
		const at = leg.get(s.pin);
		const node = nodes.find((n) => n.signal === s.signal);
		return at && node ? [{ signal: s, from: tip(at, middle), to: end(node) }] : [];
	});
	const met = useMemo(() => crossings(links), [links]);
	const lock = (name: string, pin: Pin) =>
		void edit({ kind: "lock-pin", signal: name, pin: pin.number }).then(() => pick(null));
	const press = (pin: Pin) => {
		if (signal && able.has(pin.number)) lock(signal, pin);
		else pick(pin.signal || null);
	};
	const spot = (event: PointerEvent): Spot => {
		const matrix = svg.current?.getScreenCTM();
		if (!matrix) return middle;
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
		return { x: point.x, y: point.y };
	};
	const under = (at: Spot) =>
		nodes.find((n) => Math.abs(end(n).y - at.y) < 11 && Math.abs(label(n).x - at.x) < label(n).w / 2 + 8);
	const drop = (event: PointerEvent) => {
		if (!pulled) return;
		const node = under(spot(event));
		const takes = view.signals.find((s) => s.signal === node?.signal)?.pins.includes(pulled.pin.number);
		if (node && takes) lock(node.signal, pulled.pin);
		setPulled(null);
	};
	return (
		<div className="flex min-w-0 flex-1 flex-col">
			<div ref={frame} className="min-h-0 flex-1 p-2">
				<svg
					ref={svg}
					width={w}
					height={h}
					className="touch-none"
					role="group"
					aria-label={`${view.chip} as it will sit, with its signals around it`}
					onPointerMove={(event) => pulled && setPulled({ ...pulled, to: spot(event) })}
					onPointerUp={drop}
					onPointerLeave={() => setPulled(null)}
				>
					<Body legs={drawn.legs} middle={middle} />
					{links.map((link) => (
						<line
							key={link.signal.signal}
							x1={link.from.x}
							y1={link.from.y}
							x2={link.to.x}
							y2={link.to.y}
							{...styleOf(link.signal.line)}
							strokeOpacity={signal && signal !== link.signal.signal ? 0.25 : 1}
							strokeWidth={signal === link.signal.signal ? 3 : styleOf(link.signal.line).strokeWidth}
						/>
					))}
					{met.map((at) => (
						<circle
							key={`${at.x} ${at.y}`}
							cx={at.x}
							cy={at.y}
							r={3.2}
							fill="var(--color-card)"
							stroke="var(--color-look)"
							strokeWidth={1.4}
						/>
					))}
					{view.pins.map((pin) => {
						const at = leg.get(pin.number);
						return at ? (
							<PinMark
								key={pin.number}
								pin={pin}
								at={{ x: middle.x + at.x, y: middle.y + at.y }}
								out={at.out}
								thick={thickness(drawn.legs)}
								able={able.has(pin.number)}
								picked={signal !== null && pin.signal === signal}
								over={() => reckon(describe(pin))}
								press={() => press(pin)}
								pull={(event) => {
									if (pin.kind === "port") setPulled({ pin, from: tip(at, middle), to: spot(event) });
								}}
							/>
						) : null;
					})}
					{nodes.map((node) => (
						<NodeMark
							key={node.signal}
							node={node}
							row={view.signals.find((s) => s.signal === node.signal)}
							picked={signal === node.signal}
							offered={Boolean(
								pulled && view.signals.find((s) => s.signal === node.signal)?.pins.includes(pulled.pin.number),
							)}
							press={() => pick(signal === node.signal ? null : node.signal)}
						/>
					))}
					<Name view={view} middle={middle} signal={signal} />
					{pulled && (
						<line
							x1={pulled.from.x}
							y1={pulled.from.y}
							x2={pulled.to.x}
							y2={pulled.to.y}
							stroke="var(--color-patina)"
							strokeWidth={2.5}
						/>
					)}
				</svg>
			</div>
			<LineKey view={view} drawn={met.length} />
		</div>
	);
}

function Body({ legs: all, middle }: { legs: Leg[]; middle: Spot }) {
	const inset = thickness(all) * 0.9 + 4;
	const points = hull(all.map((l) => ({ x: l.x - l.out.x * inset, y: l.y - l.out.y * inset })));
	const first = all[0];
	return (
		<g transform={`translate(${middle.x} ${middle.y})`}>
			<polygon
				points={points.map((p) => `${p.x},${p.y}`).join(" ")}
				fill="#38352f"
				stroke="#38352f"
				strokeWidth={6}
				strokeLinejoin="round"
			/>
			{first && (
				<circle
					cx={first.x - first.out.x * (inset + 9)}
					cy={first.y - first.out.y * (inset + 9)}
					r={3.5}
					fill="none"
					stroke="#c9c1ae"
					strokeWidth={1.6}
				/>
			)}
		</g>
	);
}

/** The chip's name over its links, with a rim that keeps it legible. */
function Name({ view, middle, signal }: { view: View; middle: Spot; signal: string | null }) {
	const rim = { stroke: "#38352f", strokeWidth: 4, paintOrder: "stroke" };
	return (
		<g transform={`translate(${middle.x} ${middle.y})`} pointerEvents="none" textAnchor="middle">
			<text y={-3} fill="#f7f4ec" fontSize={13} fontWeight={600} {...rim}>
				{view.chip}
			</text>
			<text y={13} fill="#c9c1ae" fontSize={11} {...rim}>
				{signal ? "press a ringed pin" : view.package}
			</text>
		</g>
	);
}

/** The convex outline around some points. */
function hull(points: Spot[]): Spot[] {
	const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
	const half = (rows: Spot[]) => {
		const kept: Spot[] = [];
		for (const p of rows) {
			while (kept.length > 1 && turn(kept[kept.length - 2] as Spot, kept[kept.length - 1] as Spot, p) <= 0) kept.pop();
			kept.push(p);
		}
		return kept.slice(0, -1);
	};
	return [...half(sorted), ...half(sorted.reverse())];
}

const turn = (a: Spot, b: Spot, c: Spot) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

function thickness(all: Leg[]): number {
	const [a, b] = all;
	return a && b ? Math.max(5, Math.min(13, Math.hypot(a.x - b.x, a.y - b.y) * 0.66)) : 12;
}

const LEG = 22;
const tip = (leg: Leg, middle: Spot): Spot => ({
	x: middle.x + leg.x + leg.out.x * (LEG - 4),
	y: middle.y + leg.y + leg.out.y * (LEG - 4),
});

const width = (node: Node) => node.words.length * 6.2;

/** The middle and width of a name. */
function label(node: Node) {
	const w = width(node);
	return { x: node.anchor === "start" ? node.x + w / 2 : node.anchor === "end" ? node.x - w / 2 : node.x, w };
}

/** Where a link meets its name. */
function end(node: Node): Spot {
	if (node.anchor === "start") return { x: node.x + width(node) + 6, y: node.y - 4 };
	if (node.anchor === "end") return { x: node.x - width(node) - 6, y: node.y - 4 };
	return { x: node.x, y: node.y < 60 ? node.y + 5 : node.y - 15 };
}

function short(title: string): string {
	return title.replace("button ", "").replace("programming ", "prog. ").replace("indicator ", "");
}

function describe(pin: Pin): string {
	const could = (pin.could ?? []).slice(0, 6).join(", ");
	return `pin ${pin.number} ${pin.name}: ${pin.title || pin.kind}${pin.function ? ` as ${pin.function}` : ""}${could ? `; could be ${could}` : ""}`;
}

type MarkProps = {
	pin: Pin;
	at: Spot;
	out: Spot;
	thick: number;
	able: boolean;
	picked: boolean;
	over: () => void;
	press: () => void;
	pull: (event: PointerEvent) => void;
};

function PinMark({ pin, at, out, thick, able, picked, over, press, pull }: MarkProps) {
	const angle = (Math.atan2(out.y, out.x) * 180) / Math.PI;
	const flip = Math.abs(angle) > 90.5;
	return (
		<g
			transform={`translate(${at.x} ${at.y}) rotate(${angle})`}
			onPointerEnter={over}
			onPointerDown={pull}
			onClick={press}
			onKeyDown={(event) => {
				if (event.key !== "Enter" && event.key !== " ") return;
				event.preventDefault();
				press();
			}}
			tabIndex={pin.kind === "port" ? 0 : -1}
			role="button"
			aria-label={describe(pin)}
			data-pin={pin.number}
			data-signal={pin.signal}
			className="cursor-pointer"
			onFocus={over}
		>
			<rect
				x={-6}
				y={-thick / 2}
				width={LEG}
				height={thick}
				fill={pin.signal ? "var(--color-copper)" : (FILL[pin.kind] ?? "var(--color-board)")}
				stroke="var(--color-ink)"
				strokeWidth={picked ? 2.4 : 0.7}
			/>
			{able && (
				<rect
					x={-9}
					y={-thick / 2 - 2.5}
					width={LEG + 6}
					height={thick + 5}
					fill="none"
					stroke="var(--color-patina)"
					strokeWidth={2}
					strokeDasharray="4 2"
				/>
			)}
			<text
				transform={flip ? "rotate(180)" : ""}
				x={flip ? -5 : 5}
				y={thick * 0.32}
				textAnchor="middle"
				fontSize={Math.min(9.5, thick * 0.9)}
				fill={pin.signal || pin.kind === "ground" ? "#fff" : "var(--color-ink)"}
				className="figure"
			>
				{pin.number}
			</text>
			{pin.locked && <circle cx={LEG - 2} cy={0} r={3} fill="var(--color-ink)" />}
		</g>
	);
}

type NodeProps = {
	node: Node;
	row: View["signals"][number] | undefined;
	picked: boolean;
	offered: boolean;
	press: () => void;
};

function NodeMark({ node, row, picked, offered, press }: NodeProps) {
	const { x, w } = label(node);
	return (
		<g
			onClick={press}
			onKeyDown={(event) => {
				if (event.key !== "Enter" && event.key !== " ") return;
				event.preventDefault();
				press();
			}}
			tabIndex={0}
			role="button"
			aria-pressed={picked}
			aria-label={`${node.words}, ${row?.title ?? ""}: ${row?.pin ? `pin ${row.pin} ${row.port}${row.locked ? ", locked" : ""}` : "no pin yet"}`}
			data-node={node.signal}
			className="cursor-pointer"
		>
			<rect
				x={x - w / 2 - 5}
				y={node.y - 12.5}
				width={w + 10}
				height={16}
				rx={3}
				fill={offered ? "var(--color-board)" : picked ? "var(--color-ink)" : "transparent"}
				stroke={offered ? "var(--color-patina)" : "none"}
			/>
			<text
				x={node.x}
				y={node.y}
				textAnchor={node.anchor}
				fontSize={12}
				fill={picked ? "var(--color-paper)" : "var(--color-ink)"}
				textLength={w > 150 ? 150 : undefined}
			>
				{node.words}
			</text>
		</g>
	);
}
