import type { Schemas } from "../../api/client";
import { line, type Point, scaleOf } from "./curve";

const [WIDE, HIGH, LEFT, LOW] = [560, 260, 40, 24];

/** What a curve of heat must keep for a paste, a profile inside it, and a recorded one over it. */
export function HeatCurve({
	limits,
	profile,
	recorded,
}: {
	limits: Schemas["Paste"];
	profile: readonly Point[];
	recorded?: readonly Point[] | undefined;
}) {
	const { x, y, most, top } = scaleOf([...profile, ...(recorded ?? [])], WIDE, HIGH);
	const ticks = Array.from({ length: Math.floor(most / 60) + 1 }, (_, i) => i * 60);
	return (
		<svg
			viewBox={`${-LEFT} -10 ${WIDE + LEFT + 16} ${HIGH + LOW + 20}`}
			className="max-h-[360px] w-full"
			role="img"
			aria-label="Temperature over time"
			data-testid="heating"
		>
			<rect
				x={0}
				y={y(limits.soak_c[1])}
				width={WIDE}
				height={y(limits.soak_c[0]) - y(limits.soak_c[1])}
				fill="var(--color-board)"
				fillOpacity={0.6}
			/>
			<text x={6} y={y(limits.soak_c[1]) + 15} fontSize={12} fill="var(--color-ink-2)">
				soak {limits.soak_s[0]} to {limits.soak_s[1]} s
			</text>
			<line
				x1={0}
				x2={WIDE}
				y1={y(limits.liquid_c)}
				y2={y(limits.liquid_c)}
				stroke="var(--color-look)"
				strokeDasharray="6 4"
			/>
			<text x={6} y={y(limits.liquid_c) - 4} fontSize={12} fill="var(--color-look)">
				melts at {limits.liquid_c} °C, {limits.liquid_s[0]} to {limits.liquid_s[1]} s above
			</text>
			<line
				x1={0}
				x2={WIDE}
				y1={y(limits.peak_c[1])}
				y2={y(limits.peak_c[1])}
				stroke="var(--color-stop)"
				strokeDasharray="2 3"
			/>
			<path
				d={line(profile, x, y)}
				fill="none"
				stroke="var(--color-patina)"
				strokeWidth={2}
				strokeDasharray={recorded ? "7 4" : undefined}
			/>
			{recorded && (
				<path
					d={line(recorded, x, y)}
					fill="none"
					stroke="var(--color-copper)"
					strokeWidth={2}
					data-testid="recorded"
				/>
			)}
			{[0, 50, 100, 150, 200, 250]
				.filter((c) => c <= top)
				.map((c) => (
					<text key={c} x={-6} y={y(c) + 4} textAnchor="end" fontSize={12} className="figure" fill="var(--color-ink-2)">
						{c}
					</text>
				))}
			{ticks.map((s) => (
				<text
					key={s}
					x={x(s)}
					y={HIGH + 16}
					textAnchor="middle"
					fontSize={12}
					className="figure"
					fill="var(--color-ink-2)"
				>
					{s}
				</text>
			))}
			<line x1={0} x2={WIDE} y1={HIGH} y2={HIGH} stroke="var(--color-line)" />
			<line x1={0} x2={0} y1={0} y2={HIGH} stroke="var(--color-line)" />
		</svg>
	);
}
