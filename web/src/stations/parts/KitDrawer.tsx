import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { byGroup, type KitLine, type KitState } from "./drawers";

const STATES: [KitState, string][] = [
	["missing", "missing"],
	["in the drawer", "in the drawer"],
	["bought", "bought"],
];

/** The drawer of what the devices need beside their boards; where each stands is kept with the design. */
export function KitDrawer({ lines }: { lines: KitLine[] }) {
	const { edit } = useDesign();
	return (
		<div className="min-h-0 flex-1 overflow-y-auto p-4" data-testid="kit">
			{byGroup(lines).map(([group, rows]) => (
				<section key={group} aria-label={group} className="mb-4">
					<h2 className="border-b-2 border-ink pb-1 font-semibold">{group[0]?.toUpperCase() + group.slice(1)}</h2>
					<ul>
						{rows.map((line) => (
							<li
								key={line.what}
								className="flex items-center gap-3 border-b border-rule py-1.5"
								data-kit={line.what}
								data-state={line.state}
							>
								<Sign kind={line.state === "missing" ? "empty" : "clear"} size={12} />
								<span className="figure w-[52px] text-right">{line.count} x</span>
								<span className="min-w-0 flex-1">
									{line.what}
									<span className="block text-[12px] text-ink-2">{line.why}</span>
								</span>
								<span
									role="radiogroup"
									aria-label={`Where ${line.what} stands`}
									className="flex border border-line text-[12px]"
								>
									{STATES.map(([state, words]) => (
										<button
											key={state}
											type="button"
											role="radio"
											aria-checked={line.state === state}
											className={`px-2 py-1 whitespace-nowrap ${line.state === state ? "bg-ink text-paper" : "bg-card"}`}
											onClick={() => line.state !== state && void edit({ kind: "mark-kit", what: line.what, state })}
										>
											{words}
										</button>
									))}
								</span>
							</li>
						))}
					</ul>
				</section>
			))}
		</div>
	);
}
