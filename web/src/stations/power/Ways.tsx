import type { Edit } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { lasting, type Plan } from "./river";

/** The ways to make each rail, side by side; a person's choice is kept at the thing that feeds it. */
export function Ways({ plan }: { plan: Plan }) {
	const feeders = [...new Set(plan.ways.map((way) => way.feeder))];
	if (feeders.length === 0)
		return <p className="py-2 text-ink-2">Every rail is its source itself: there is no converter to choose.</p>;
	return feeders.map((feeder) => <OfFeeder key={feeder} feeder={feeder} plan={plan} />);
}

function OfFeeder({ feeder, plan }: { feeder: string; plan: Plan }) {
	const { head, edit } = useDesign();
	const ways = plan.ways.filter((way) => way.feeder === feeder);
	const thing = head.brief.things.find((t) => t.name === feeder);
	const chosen = thing && "converter" in thing ? String(thing.converter) : "auto";
	const stored = ways.some((way) => way.hours !== null);
	const choose = (name: string) =>
		void edit({ kind: "change-thing", name: feeder, changes: { converter: name } } as Edit);
	return (
		<section aria-label={`Ways for ${feeder}`} className="mb-4" data-ways={feeder}>
			<div className="flex items-baseline gap-3">
				<h2 className="font-semibold">From {feeder} to its rail</h2>
				<span className="text-[12px] text-ink-2">
					{chosen === "auto" ? "Loquet chooses" : "chosen by hand"}
					{chosen !== "auto" && (
						<Button weight="quiet" onClick={() => choose("auto")}>
							Let Loquet choose
						</Button>
					)}
				</span>
			</div>
			<table className="w-full text-[12px]">
				<thead>
					<tr className="border-b border-ink text-right text-ink-2 [&>th]:py-1 [&>th]:pl-3 [&>th]:font-normal">
						<th className="!pl-0 text-left">way</th>
						{stored && <th>in play</th>}
						<th>heat</th>
						<th>inside</th>
						<th>parts</th>
						<th>price</th>
						<th className="pl-3 text-left">verdict</th>
						<th>
							<span className="sr-only">choose</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{ways.map((way) => (
						<tr
							key={way.title}
							data-way={way.title}
							data-taken={way.taken}
							className={`border-b border-rule align-top [&>td]:py-1.5 [&>td]:pl-3 ${way.fits ? "" : "text-ink-2"} ${way.taken ? "bg-board/45" : ""}`}
						>
							<td className="!pl-1 text-left whitespace-nowrap">{way.title}</td>
							{stored && (
								<td className="figure text-right whitespace-nowrap">{way.hours === null ? "" : lasting(way.hours)}</td>
							)}
							<td className="figure text-right whitespace-nowrap">{way.heat_mw.toFixed(0)} mW</td>
							<td className="figure text-right whitespace-nowrap">{way.junction_c.toFixed(0)} °C</td>
							<td className="figure text-right">{way.parts}</td>
							<td className="figure text-right whitespace-nowrap">{(way.price_cents / 100).toFixed(2)} €</td>
							<td className="text-left">
								<span className="flex items-start gap-1.5">
									<span className="mt-[2px]">
										<Sign kind={way.fits ? "clear" : "empty"} size={11} />
									</span>
									<span>{verdict(way)}</span>
								</span>
							</td>
							<td className="text-right whitespace-nowrap">
								{way.taken ? (
									<span className="font-medium">taken</span>
								) : (
									way.fits && (
										<Button onClick={() => choose(way.name)} aria-label={`Take it: ${way.title.toLowerCase()}`}>
											Take it
										</Button>
									)
								)}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</section>
	);
}

function verdict(way: Plan["ways"][number]): string {
	if (!way.fits) return way.why_not;
	return way.recommended ? `recommended: ${way.reason}` : "fits";
}
