import { boundsOf, type Line, scaleOf } from "./drawers";

/** A part from above as it lies on the board: its body, and the copper under it; `grow` enlarges it where there is room. */
export function PartPicture({ line, grow = 1, numbers = false }: { line: Line; grow?: number; numbers?: boolean }) {
	const [x0, y0, x1, y1] = boundsOf(line);
	const { px } = scaleOf(line);
	const [bx, by, bw, bh] = line.body_mm as [number, number, number, number];
	const edge = 0.4;
	const w = x1 - x0 + 2 * edge;
	const h = y1 - y0 + 2 * edge;
	return (
		<svg
			viewBox={`${x0 - edge} ${-y1 - edge} ${w} ${h}`}
			width={w * px * grow}
			height={h * px * grow}
			role="img"
			aria-label={`${line.what}, from above`}
		>
			<rect
				x={bx - bw / 2}
				y={-by - bh / 2}
				width={bw}
				height={bh}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
				strokeWidth={0.14}
			/>
			{line.lands.map((land, index) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: pads of one number may lie on one place, and their order never changes
				<g key={index}>
					<rect
						x={land.x_mm - land.w_mm / 2}
						y={-land.y_mm - land.h_mm / 2}
						width={land.w_mm}
						height={land.h_mm}
						rx={land.round ? land.w_mm / 2 : 0}
						fill="var(--color-copper)"
						fillOpacity={0.85}
					/>
					{land.drill_mm > 0 && (
						<circle cx={land.x_mm} cy={-land.y_mm} r={land.drill_mm / 2} fill="var(--color-paper)" />
					)}
					{numbers && land.w_mm * px * grow > 9 && (
						<text
							x={land.x_mm}
							y={-land.y_mm}
							fontSize={Math.min(land.w_mm, land.h_mm) * 0.75}
							textAnchor="middle"
							dominantBaseline="central"
							fill={land.drill_mm > 0 ? "var(--color-ink)" : "#fff"}
						>
							{land.number}
						</text>
					)}
				</g>
			))}
		</svg>
	);
}
