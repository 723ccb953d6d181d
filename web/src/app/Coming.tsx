import type { ReactNode } from "react";
import { Sign } from "../design/Sign";
import { useDesign } from "../document/useDesign";

const STEPS: [string, string, string][] = [
	["pins", "Pin plan", "which pin of the chip carries which signal"],
	["circuit", "Circuit", "every part with its value, and what joins them"],
	["placement", "Placement", "every part on its board"],
	["routing", "Routing", "the tracks and vias"],
	["pour", "Pour", "ground over what is left"],
];

/** An empty station: what will be here, a picture of it as far as it is known, and what has to be made first. */
export function Coming({ title, until, children }: { title: string; until: string; children?: ReactNode }) {
	const { head } = useDesign();
	const last = STEPS.findIndex(([name]) => name === until);
	const steps = STEPS.slice(0, last + 1);
	return (
		<div className="flex min-h-0 flex-1 gap-6 overflow-y-auto p-5" data-testid="coming">
			<div className="w-[300px] shrink-0">
				<h2 className="text-[16px] font-semibold">{title}</h2>
				<ol className="mt-3 border-t border-rule">
					{steps.map(([name, words, about]) => {
						const made = !head.stale.includes(name as (typeof head.stale)[number]);
						return (
							<li
								key={name}
								className="flex items-start gap-2 border-b border-rule py-1.5"
								data-step={name}
								data-made={made}
							>
								<span className="mt-[3px]">
									<Sign kind={made ? "clear" : "empty"} size={12} />
								</span>
								<span>
									<span className={made ? "" : "font-medium"}>{words}</span>
									<span className="block text-[12px] text-ink-2">{made ? "made" : about}</span>
								</span>
							</li>
						);
					})}
				</ol>
				<p className="mt-3 text-[12px] text-ink-2">
					The one action above makes all of it in turn; the single steps are made at their own stations.
				</p>
			</div>
			{children}
		</div>
	);
}

/** A board as far as the brief knows it: its outline, and what has a place already, dashed. */
export function GhostBoard({ board }: { board: string }) {
	const { head } = useDesign();
	const outline = head.boards.find((b) => b.name === board)?.outline_mm ?? [];
	const w = Math.max(...outline.map(([x]) => x), 1);
	const h = Math.max(...outline.map(([, y]) => y), 1);
	const things = head.things.filter((t) => t.board === board && t.placed);
	return (
		<svg
			viewBox={`-2 -2 ${w + 4} ${h + 4}`}
			className="max-h-full min-w-0 flex-1"
			role="img"
			aria-label={`${board} as far as the brief knows it`}
		>
			<path
				d={`M${outline.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
				fill="none"
				stroke="var(--color-line)"
				strokeWidth={0.4}
				strokeDasharray="2 1.2"
			/>
			{things.flatMap((thing) =>
				thing.bodies.map((body) => (
					<rect
						key={`${thing.name} ${body.x_mm} ${body.y_mm}`}
						x={-body.w_mm / 2}
						y={-body.h_mm / 2}
						width={body.w_mm}
						height={body.h_mm}
						transform={`translate(${body.x_mm} ${h - body.y_mm}) rotate(${-body.turn_deg})`}
						fill="var(--color-board)"
						fillOpacity={thing.far ? 0.25 : 0.6}
						stroke="var(--color-line)"
						strokeWidth={0.25}
						strokeDasharray="1 0.8"
					/>
				)),
			)}
		</svg>
	);
}
