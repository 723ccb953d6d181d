import { NavLink } from "react-router";
import type { DesignHead } from "../api/client";
import { Sign, type SignKind } from "../design/Sign";
import { STATIONS } from "./stations";

export function StationRail({ head }: { head: DesignHead }) {
	return (
		<nav
			aria-label="Stations"
			className="flex w-[168px] shrink-0 flex-col overflow-y-auto border-r border-rule bg-card py-3 max-[800px]:w-[104px]"
		>
			<NavLink to="/" className="mx-3 mb-3 rounded-[3px] px-2 py-1 text-[12px] text-patina hover:underline">
				Back to the workshop
			</NavLink>
			{STATIONS.map((station, index) => {
				const card = head.stations.find((s) => s.name === station.name);
				const state = (card?.state ?? "empty") as SignKind;
				return (
					<NavLink
						key={station.name}
						to={`/project/${head.project}/${station.name}`}
						data-station={station.name}
						data-state={state}
						className={({ isActive }) =>
							`relative flex items-start gap-2 py-2 pr-2 pl-4 ${isActive ? "bg-paper before:absolute before:inset-y-0 before:left-0 before:w-[4px] before:bg-copper" : "hover:bg-paper"}`
						}
					>
						<span className="mt-[3px]">
							<Sign kind={state} />
						</span>
						<span className="min-w-0 flex-1">
							<span className="flex items-baseline justify-between">
								<span className="font-medium">{station.title}</span>
								<kbd className="figure text-[12px] text-ink-2 max-[800px]:hidden">{(index + 1) % 10}</kbd>
							</span>
							<span className="block text-[12px] text-ink-2 max-[800px]:hidden">
								{describe(state, card?.stops ?? 0, card?.looks ?? 0, station.about)}
							</span>
						</span>
					</NavLink>
				);
			})}
		</nav>
	);
}

function describe(state: SignKind, stops: number, looks: number, about: string): string {
	if (state === "stale") return "needs making anew";
	if (stops > 0) return `${stops} ${stops === 1 ? "stop" : "stops"}`;
	if (looks > 0) return `${looks} to look at`;
	return about;
}
