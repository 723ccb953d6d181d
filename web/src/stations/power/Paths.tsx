import type { Schemas } from "../../api/client";
import { current, lasting, type Mode } from "./river";

type Plan = Schemas["PowerPlan"];
const WORDS: Partial<Record<Mode, string>> = { play: "in play", idle: "while it waits", sleep: "asleep" };
const MOST = 6;
const WORTH = 0.1;
const LONG = 2;
const ENOUGH_H = 2 * 365 * 24;

/** Through what each source is emptied in a mode, the largest first, and how long it would last without. */
export function Paths({ plan, mode }: { plan: Plan; mode: Mode }) {
	const rows = (plan.lasting ?? []).filter((row) => row.mode === mode && row.paths.length > 0);
	return rows.map((row) => {
		const first = row.paths[0];
		const worth =
			mode === "sleep" &&
			first &&
			row.hours < ENOUGH_H &&
			first.share > WORTH &&
			first.hours_without > LONG * row.hours;
		return (
			<section key={row.source} aria-label={`What empties ${row.source}`} className="mt-4" data-paths={row.source}>
				<h2 className="border-b border-ink pb-1 font-semibold">
					What empties {row.source} {WORDS[mode]}: <span className="figure">{lasting(row.hours)}</span>
				</h2>
				<table className="w-full">
					<thead className="text-left text-[12px] text-ink-2">
						<tr>
							<th className="font-normal">part</th>
							<th className="text-right font-normal">draws</th>
							<th className="w-[110px] pl-3 font-normal">share</th>
							<th className="text-right font-normal">without it</th>
						</tr>
					</thead>
					<tbody>
						{row.paths.slice(0, MOST).map((path) => (
							<tr key={path.ref} className="border-t border-rule">
								<td className="py-0.5">
									<span className="figure">{path.ref}</span> <span className="text-ink-2">{path.words}</span>
								</td>
								<td className="figure text-right whitespace-nowrap">{current(path.ma)}</td>
								<td className="pl-3">
									<span className="inline-block h-2 bg-copper" style={{ width: `${Math.max(1, 70 * path.share)}px` }} />{" "}
									<span className="figure text-[12px]">{Math.round(100 * path.share)} %</span>
								</td>
								<td className="figure text-right whitespace-nowrap">{lasting(path.hours_without)}</td>
							</tr>
						))}
						{row.lost_ma > 0 && (
							<tr className="border-t border-rule">
								<td className="py-0.5 text-ink-2">the cell by itself</td>
								<td className="figure text-right whitespace-nowrap">{current(row.lost_ma)}</td>
								<td />
								<td />
							</tr>
						)}
					</tbody>
				</table>
				{worth && (
					<p className="mt-1 text-[12px]">
						A load switch before <span className="figure">{first.ref}</span>, off while it sleeps, would make{" "}
						<span className="figure">{lasting(first.hours_without)}</span> of{" "}
						<span className="figure">{lasting(row.hours)}</span>: add one at the Brief and name it as its rail.
					</p>
				)}
			</section>
		);
	});
}
