import { useQuery } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { useShown } from "../../app/reckoner";
import { Figures } from "../../design/Figure";
import { Switch } from "../../design/Switch";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { Paths } from "./Paths";
import { Protections } from "./Protections";
import { River } from "./River";
import { type Mode, wayOf } from "./river";
import { Ways } from "./Ways";

const MODES: [Mode, string, string][] = [
	["play", "In play", "as it is used"],
	["idle", "Waiting", "on, and nobody presses anything"],
	["sleep", "Asleep", "the chip sleeps, everything else is off"],
	["peak", "All at once", "the highest current of everything together"],
	["charge", "Charging", "plugged in, the cell is charged and the device is played"],
];

/** From sources to loads as a river whose widths are currents, the ways between them, and what they work out to. */
export function PowerStation() {
	const { head } = useDesign();
	const { shown } = useShown();
	const [mode, setMode] = useKept<Mode>("power mode", "play");
	const query = useQuery({
		queryKey: ["project", head.project, "power", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/power", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Adding up the currents.</p>;
	const plan = query.data;
	const modes = MODES.filter(([value]) => value !== "charge" || plan.rails.some((rail) => rail.plugged));
	const seen = modes.some(([value]) => value === mode) ? mode : "play";
	const marked = wayOf(plan, shown?.about ?? []);
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex items-center gap-3 border-b border-rule px-4 py-2">
				<Switch label="Mode" mark="mode" views={modes} shown={seen} show={setMode} />
				<span className="text-[12px] text-ink-2">
					{MODES.find(([value]) => value === seen)?.[2]}; widths are currents
				</span>
			</div>
			<div className="min-h-0 flex-1 overflow-y-auto px-4 py-2" tabIndex={-1}>
				<River plan={plan} mode={seen} marked={marked} />
				<div className="mt-3 flex flex-wrap gap-6">
					<div className="min-w-[540px] flex-1">
						<Ways plan={plan} />
						<Paths plan={plan} mode={seen} />
						<Protections />
					</div>
					<section aria-label="Figures" className="w-[290px]">
						<h2 className="border-b border-ink pb-1 font-semibold">What it works out to</h2>
						<Figures
							workings={plan.workings.filter((w) => !/\.(play|idle|sleep|peak)$/.test(w.id) || w.id.includes(".run."))}
						/>
						<p className="mt-2 text-[12px] text-ink-2">
							Run times come from a model of the cell
							{plan.lasting?.length ? " and all paths of the circuit" : " and the budget, before there is a circuit"},
							at 20 °C unless said; a measured rundown counts for more.
						</p>
						{plan.sources
							.filter((source) => source.caution)
							.map((source) => (
								<p key={source.name} className="mt-2 text-[12px]">
									{source.caution} Local codes and the maker's limits come first.
								</p>
							))}
					</section>
				</div>
			</div>
		</div>
	);
}
