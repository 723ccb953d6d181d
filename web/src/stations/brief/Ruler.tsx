/** Centimetres along the lower edge; figures keep their size whatever the board's. */
export function Ruler({ w, h, px }: { w: number; h: number; px: number }) {
	const every = 10 / px < 26 ? 20 : 10;
	const ticks = Array.from({ length: Math.floor(w / every) + 1 }, (_, i) => i * every);
	return (
		<g stroke="var(--color-ink-2)" strokeWidth={px} role="presentation">
			<line x1={0} x2={w} y1={h + 1.6} y2={h + 1.6} />
			{ticks.map((x) => (
				<g key={x}>
					<line x1={x} x2={x} y1={h + 1.1} y2={h + 2.1} />
					{w - x > 18 * px && (
						<text
							x={x}
							y={h + 2.3 + 11 * px}
							fontSize={10 * px}
							textAnchor="middle"
							stroke="none"
							fill="var(--color-ink-2)"
							className="figure"
						>
							{x}
						</text>
					)}
				</g>
			))}
			<text x={w} y={h + 2.3 + 11 * px} fontSize={10 * px} textAnchor="end" stroke="none" fill="var(--color-ink-2)">
				mm
			</text>
		</g>
	);
}
