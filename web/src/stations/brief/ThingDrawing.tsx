import type { Thing } from "./kinds";

const QUIET = "#8d8676";
type Line = { stroke: string; strokeWidth: number };

/** One thing as the front view draws it, about its own middle: its pieces from their own sizes, its mark on top. */
export function ThingDrawing({
	thing,
	px,
	selected,
	label,
}: {
	thing: Thing;
	px: number;
	selected: boolean;
	label: number | null;
}) {
	const line = { stroke: selected ? "var(--color-patina)" : "var(--color-ink)", strokeWidth: selected ? 2 * px : px };
	const reach = extent(thing);
	return (
		<>
			<rect
				className="ring opacity-0"
				x={reach.left - 3 * px}
				y={-reach.top - 3 * px}
				width={reach.right - reach.left + 6 * px}
				height={reach.top - reach.bottom + 6 * px}
				fill="none"
				stroke="var(--color-patina)"
				strokeWidth={2 * px}
			/>
			{thing.cover_mm && (
				<rect
					x={thing.cover_mm[0] - thing.x_mm}
					y={thing.y_mm - thing.cover_mm[3]}
					width={thing.cover_mm[2] - thing.cover_mm[0]}
					height={thing.cover_mm[3] - thing.cover_mm[1]}
					rx={0.6}
					fill="#dfe3da"
					{...line}
				/>
			)}
			{thing.bodies.map((body) => (
				<g
					key={`${body.x_mm} ${body.y_mm}`}
					transform={`translate(${body.x_mm - thing.x_mm} ${thing.y_mm - body.y_mm}) rotate(${-body.turn_deg})`}
				>
					<Body mark={thing.mark} far={thing.far} w={body.w_mm} h={body.h_mm} line={line} px={px} />
				</g>
			))}
			{label != null && (
				<text
					y={thing.y_mm - label + 4 * px}
					fontSize={11 * px}
					textAnchor="middle"
					fill={thing.placed ? "var(--color-ink)" : "var(--color-ink-2)"}
				>
					{thing.label}
					{thing.far ? ", far side" : ""}
				</text>
			)}
		</>
	);
}

/** How far the pieces of a thing reach from its middle, y up. */
export function extent(thing: Thing): { left: number; right: number; bottom: number; top: number } {
	const found = { left: -1, right: 1, bottom: -1, top: 1 };
	for (const body of thing.bodies) {
		const a = (body.turn_deg * Math.PI) / 180;
		const w = (Math.abs(body.w_mm * Math.cos(a)) + Math.abs(body.h_mm * Math.sin(a))) / 2;
		const h = (Math.abs(body.w_mm * Math.sin(a)) + Math.abs(body.h_mm * Math.cos(a))) / 2;
		const [x, y] = [body.x_mm - thing.x_mm, body.y_mm - thing.y_mm];
		found.left = Math.min(found.left, x - w);
		found.right = Math.max(found.right, x + w);
		found.bottom = Math.min(found.bottom, y - h);
		found.top = Math.max(found.top, y + h);
	}
	return found;
}

function Body({
	mark,
	far,
	w,
	h,
	line,
	px,
}: {
	mark: string;
	far: boolean;
	w: number;
	h: number;
	line: Line;
	px: number;
}) {
	const box = { x: -w / 2, y: -h / 2, width: w, height: h };
	const least = Math.min(w, h);
	if (far)
		return (
			<rect
				{...box}
				rx={1}
				fill="#00000008"
				strokeDasharray={`${5 * px} ${4 * px}`}
				strokeWidth={line.strokeWidth}
				stroke={line.strokeWidth > px ? line.stroke : QUIET}
			/>
		);
	switch (mark) {
		case "round":
		case "cross":
			return (
				<>
					<rect {...box} rx={0.8} fill="var(--color-card)" {...line} />
					<circle r={least * 0.3} fill="#d9d2bf" stroke={line.stroke} strokeWidth={px} />
				</>
			);
		case "stick":
			return (
				<>
					<rect {...box} rx={1.5} fill="#cfc7b2" {...line} />
					<circle r={least * 0.42} fill="var(--color-card)" stroke={line.stroke} strokeWidth={px} />
					<circle r={least * 0.2} fill="#d9d2bf" stroke={line.stroke} strokeWidth={px} />
				</>
			);
		case "knob":
			return (
				<>
					<rect {...box} rx={0.6} fill="#cfc7b2" {...line} />
					<circle
						r={least * 0.44}
						fill="var(--color-card)"
						stroke={line.stroke}
						strokeWidth={px}
						strokeDasharray={`${3 * px} ${2 * px}`}
					/>
				</>
			);
		case "slide":
			return (
				<>
					<rect {...box} rx={0.6} fill="var(--color-card)" {...line} />
					<line x1={-w * 0.36} x2={w * 0.36} y1={0} y2={0} stroke={line.stroke} strokeWidth={2 * px} />
					<rect
						x={-w * 0.08}
						y={-h * 0.3}
						width={w * 0.16}
						height={h * 0.6}
						fill="#d9d2bf"
						stroke={line.stroke}
						strokeWidth={px}
					/>
				</>
			);
		case "ring":
			return <circle r={w / 2} fill="#e3c9a9" {...line} strokeDasharray={`${4 * px} ${4 * px}`} />;
		case "hole":
			return (
				<>
					<circle r={least / 2} fill="var(--color-card)" {...line} strokeDasharray={`${3 * px} ${2 * px}`} />
					<circle r={least / 4} fill="var(--color-paper)" stroke={line.stroke} strokeWidth={px} />
				</>
			);
		case "opening":
			return <rect {...box} rx={least / 8} fill="var(--color-paper)" {...line} />;
		case "slot":
			return <rect {...box} rx={least / 2} fill="var(--color-paper)" {...line} />;
		case "lamp":
			return <circle r={Math.max(0.9, least / 2)} fill="#e3a64a" {...line} />;
		case "dot":
			return <circle r={least / 2} fill="var(--color-copper)" {...line} />;
		case "chip":
			return (
				<>
					<rect {...box} rx={0.3} fill="#4f4a40" {...line} />
					<circle cx={-w * 0.36} cy={-h * 0.36} r={Math.max(0.3, least * 0.05)} fill="var(--color-card)" />
				</>
			);
		case "free":
			return <rect {...box} fill="#b7791f18" {...line} strokeDasharray={`${3 * px} ${3 * px}`} />;
		case "words":
			return <rect {...box} fill="#4a3f6318" stroke="var(--color-legend)" strokeWidth={line.strokeWidth} />;
		default:
			return <rect {...box} rx={0.3} fill="#cfc7b2" {...line} />;
	}
}
