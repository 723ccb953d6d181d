import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { line, scaleOf } from "./curve";
import type { Build } from "./useBuild";

type Recorded = Schemas["CurveView"];
const [WIDE, HIGH, LEFT, LOW] = [560, 260, 40, 24];

/** The profile for the paste, and a recorded curve held against its limits. */
export function HeatingPage({ build }: { build: Build }) {
	const [recorded, setRecorded] = useState<Recorded | null>(null);
	const { ask, problem } = useAsking(["heating"]);
	const read = async (file: File | undefined) => {
		if (!file) return;
		const csv = await file.text();
		const found = await ask(() => take(client.POST("/api/reflow", { body: { paste: build.paste, csv } })));
		setRecorded(found);
	};
	const { limits } = build;
	const { x, y, most, top } = scaleOf([...build.profile, ...(recorded?.points ?? [])], WIDE, HIGH);
	const ticks = Array.from({ length: Math.floor(most / 60) + 1 }, (_, i) => i * 60);
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
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
					d={line(build.profile, x, y)}
					fill="none"
					stroke="var(--color-patina)"
					strokeWidth={2}
					strokeDasharray={recorded ? "7 4" : undefined}
				/>
				{recorded && (
					<path
						d={line(recorded.points, x, y)}
						fill="none"
						stroke="var(--color-copper)"
						strokeWidth={2}
						data-testid="recorded"
					/>
				)}
				{[0, 50, 100, 150, 200, 250]
					.filter((c) => c <= top)
					.map((c) => (
						<text
							key={c}
							x={-6}
							y={y(c) + 4}
							textAnchor="end"
							fontSize={12}
							className="figure"
							fill="var(--color-ink-2)"
						>
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
			<p className="text-[12px] text-ink-2">
				°C over seconds. Green: a profile inside the limits of J-STD-020 for {build.paste} paste (from memory); a
				profile of the paste's own maker comes first.
			</p>
			<label className="mt-3 inline-block">
				<span className="mr-2">Hold a recorded curve against it (CSV of any logger: seconds, °C)</span>
				<input
					type="file"
					accept=".csv,.txt"
					data-testid="curve-file"
					onChange={(event) => void read(event.target.files?.[0])}
				/>
			</label>
			{problem && <p className="mt-2 text-stop">{problem}</p>}
			{recorded && (
				<table className="mt-3" data-testid="checks">
					<tbody>
						{recorded.checks.map((check) => (
							<tr key={check.words} className="border-b border-rule">
								<td className="py-1 pr-2">
									<Sign kind={check.kept ? "clear" : "stop"} size={12} />
								</td>
								<td className="pr-6">{check.words}</td>
								<td className="figure pr-6 text-right">{check.found}</td>
								<td className="text-ink-2">{check.asked}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<p className="mt-4 text-[12px]">
				Plates and hot air burn, fumes irritate: draw them off, let the board cool before it is touched.
			</p>
		</div>
	);
}
