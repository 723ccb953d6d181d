import type { Schemas } from "../../api/client";
import { Figure } from "../../design/Figure";
import type { Build } from "./useBuild";

type Expected = Schemas["Expected"];

/** What a meter should show before power and after it. */
export function PowerPage({ build }: { build: Build }) {
	const { power } = build;
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
			<p>
				Worked out from this circuit by nodal analysis. Switch on, cells out. Power stays off until every reading before
				it is as expected.
			</p>
			<div className="mt-3 grid grid-cols-[repeat(auto-fit,minmax(320px,1fr))] gap-6">
				<Table title="1 Rails against ground, power off" rows={power.before} />
				<Table title="2 Neighbours most likely bridged, power off" rows={power.neighbours} />
				<section>
					<h2 className="border-b border-ink pb-1 font-semibold">3 Power on</h2>
					{power.volts && (
						<p className="mt-2 flex justify-between">
							Set the bench supply to <Figure working={power.volts} />
						</p>
					)}
					<p className="mt-1 flex justify-between">
						Limit it to <Figure working={power.limit} />
					</p>
					<p className="mt-1 flex justify-between">
						All rails give, waiting <Figure working={power.idle} />
					</p>
					<p className="mt-2 text-[12px] text-ink-2">
						More than that: switch off at once and look for what gets warm. Not from a lithium cell before all volts are
						right.
					</p>
				</section>
				<Table title="4 Volts, power on" rows={power.after} />
			</div>
		</div>
	);
}

function Table({ title, rows }: { title: string; rows: readonly Expected[] }) {
	return (
		<section>
			<h2 className="border-b border-ink pb-1 font-semibold">{title}</h2>
			<table className="w-full text-[12px]">
				<tbody>
					{rows.map((row) => (
						<tr key={`${row.one} ${row.other} ${row.words}`} className="border-b border-rule align-top">
							<td className="py-1 pr-2">
								{row.words}
								<span className="block text-ink-2">
									{row.one} {row.other && `and ${row.other}`}
								</span>
							</td>
							<td className="figure py-1 text-right whitespace-nowrap">{row.shown}</td>
						</tr>
					))}
				</tbody>
			</table>
			{rows.length === 0 && <p className="py-2 text-ink-2">None.</p>}
		</section>
	);
}
