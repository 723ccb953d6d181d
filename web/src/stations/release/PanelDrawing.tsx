import type { Schemas } from "../../api/client";

type View = Schemas["PanelView"];
const [WIDE, HIGH] = [350, 250];

/** A panel at one scale: rails, copies with their numbers, milled lines, tabs' holes, marks, score lines, sizes. */
export function PanelDrawing({ panel, board }: { panel: View; board: Schemas["BoardOutline"] }) {
	const scale = Math.min((WIDE - 30) / panel.width_mm, (HIGH - 30) / panel.height_mm);
	const x = (mm: number) => 2 + mm * scale;
	const y = (mm: number) => 2 + (panel.height_mm - mm) * scale;
	const path = (points: [number, number][]) => points.map(([a, b]) => `${x(a)},${y(b)}`).join(" ");
	const middle = middleOf(board.outline_mm);
	return (
		<svg
			width={panel.width_mm * scale + 40}
			height={panel.height_mm * scale + 24}
			role="img"
			aria-label={`Panel of ${panel.copies.length} boards, ${panel.width_mm.toFixed(1)} by ${panel.height_mm.toFixed(1)} mm`}
			data-testid="panel-drawing"
			data-copies={panel.copies.length}
		>
			{panel.rails.map(([left, bottom, right, top]) => (
				<rect
					key={`${left} ${bottom}`}
					x={x(left)}
					y={y(top)}
					width={(right - left) * scale}
					height={(top - bottom) * scale}
					fill="#DDDCCB"
				/>
			))}
			{panel.copies.map(([dx, dy], index) => (
				<g key={`${dx} ${dy}`}>
					<polygon points={path(board.outline_mm.map(([a, b]) => [a + dx, b + dy]))} fill="#E9DFC4" />
					<text
						x={x(dx + middle[0])}
						y={y(dy + middle[1]) + 4}
						textAnchor="middle"
						className="figure text-[12px]"
						fill="var(--color-ink-2)"
					>
						{index + 1}
					</text>
				</g>
			))}
			{panel.milled.map((points) => (
				<polyline
					key={points.join(" ")}
					points={path(points as [number, number][])}
					fill="none"
					stroke="var(--color-ink)"
					strokeWidth={1}
				/>
			))}
			{panel.scores.map(([first, last]) => (
				<polyline
					key={`${first} ${last}`}
					points={path([first, last])}
					fill="none"
					stroke="var(--color-copper)"
					strokeWidth={1.4}
					strokeDasharray="6 3"
				/>
			))}
			{panel.holes.map((hole) => (
				<circle
					key={`${hole.x_mm} ${hole.y_mm}`}
					cx={x(hole.x_mm)}
					cy={y(hole.y_mm)}
					r={Math.max(0.7, (hole.d_mm / 2) * scale)}
					fill={hole.kind === "tooling" ? "var(--color-paper)" : "var(--color-ink)"}
					stroke={hole.kind === "tooling" ? "var(--color-ink)" : "none"}
				/>
			))}
			{panel.marks.map(([a, b]) => (
				<circle key={`${a} ${b}`} cx={x(a)} cy={y(b)} r={Math.max(1.5, scale)} fill="var(--color-copper)" />
			))}
			<text
				x={x(panel.width_mm / 2)}
				y={panel.height_mm * scale + 18}
				textAnchor="middle"
				className="figure text-[12px]"
				fill="var(--color-ink)"
			>
				{panel.width_mm.toFixed(1)} mm
			</text>
			<text
				transform={`translate(${panel.width_mm * scale + 16} ${y(panel.height_mm / 2)}) rotate(90)`}
				textAnchor="middle"
				className="figure text-[12px]"
				fill="var(--color-ink)"
			>
				{panel.height_mm.toFixed(1)} mm
			</text>
		</svg>
	);
}

function middleOf(points: readonly (readonly [number, number] | number[])[]): [number, number] {
	const xs = points.map((p) => p[0] ?? 0);
	const ys = points.map((p) => p[1] ?? 0);
	return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
}
