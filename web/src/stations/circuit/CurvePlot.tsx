import type { Schemas } from "../../api/client";
import { shareOf, ticksOf, tickText } from "./ticks";

type Curve = Schemas["Curve"];
type Axis = Schemas["Axis"];

const WIDE = 380;
const TALL = 150;
const LEFT = 40;
const BELOW = 30;
const ABOVE = 8;

const titled = (axis: Axis) => (axis.unit ? `${axis.title}, ${axis.unit}` : axis.title);

/** What nodal analysis answers: the curve, the point that matters, and what was taken for granted. */
export function CurvePlot({ curve }: { curve: Curve }) {
	const xs = curve.points.map((p) => p[0]);
	const ys = curve.points.map((p) => p[1]);
	const across = { low: Math.min(...xs), high: Math.max(...xs), log: curve.across.log ?? false };
	const up = { low: Math.min(0, ...ys), high: Math.max(0, ...ys) * (Math.max(...ys) > 0 ? 1.08 : 1), log: false };
	const x = (value: number) => LEFT + shareOf(value, across.low, across.high, across.log) * (WIDE - LEFT - 8);
	const y = (value: number) => TALL - BELOW - shareOf(value, up.low, up.high, false) * (TALL - BELOW - ABOVE);
	const path = curve.points.map(([a, b], at) => `${at ? "L" : "M"}${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join("");
	const [atX, atY] = [x(curve.mark[0]), y(curve.mark[1])];
	return (
		<figure className="mt-3 w-[380px]" data-curve={curve.id}>
			<figcaption>
				<span className="font-medium">{curve.title}</span>{" "}
				<span className="text-[12px] text-ink-2">{curve.parts.slice(0, 6).join(", ")}</span>
			</figcaption>
			<svg width={WIDE} height={TALL} role="img" aria-label={`${curve.title}: ${curve.says}`} className="text-ink-2">
				{ticksOf(up.low, up.high, false).map((tick) => (
					<g key={tick}>
						<path d={`M${LEFT} ${y(tick)}H${WIDE - 8}`} stroke="var(--color-rule)" />
						<text x={LEFT - 5} y={y(tick) + 4} textAnchor="end" fontSize="11" fill="currentColor" className="figure">
							{tickText(tick)}
						</text>
					</g>
				))}
				{ticksOf(across.low, across.high, across.log).map((tick) => (
					<g key={tick}>
						<path d={`M${x(tick)} ${TALL - BELOW}v4`} stroke="currentColor" />
						<text
							x={x(tick)}
							y={TALL - BELOW + 14}
							textAnchor="middle"
							fontSize="11"
							fill="currentColor"
							className="figure"
						>
							{tickText(tick)}
						</text>
					</g>
				))}
				<path d={`M${LEFT} ${ABOVE}V${TALL - BELOW}H${WIDE - 8}`} stroke="currentColor" fill="none" />
				<path d={path} stroke="var(--color-patina)" strokeWidth="1.8" fill="none" />
				<path
					d={`M${LEFT} ${atY}H${atX}V${TALL - BELOW}`}
					stroke="var(--color-copper)"
					strokeDasharray="3 3"
					fill="none"
				/>
				<circle cx={atX} cy={atY} r="3.5" fill="var(--color-copper)" />
				<text x={WIDE - 8} y={TALL - 3} textAnchor="end" fontSize="11" fill="currentColor">
					{titled(curve.across)}
				</text>
				<text x={LEFT + 4} y={ABOVE + 9} fontSize="11" fill="currentColor">
					{titled(curve.up)}
				</text>
			</svg>
			<p>{curve.says}</p>
			<p className="text-[12px] text-ink-2">Nodal analysis of this circuit; {curve.assumes}.</p>
		</figure>
	);
}
