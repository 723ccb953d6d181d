import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { BoardPicker } from "../../app/BoardPicker";
import { Choice } from "../../design/Choice";
import { Figure } from "../../design/Figure";
import { NumberField } from "../../design/NumberField";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { PanelDrawing } from "./PanelDrawing";

type Chosen = NonNullable<Schemas["Choices"]["panel"]>;
type Way = "singly" | NonNullable<Chosen["by"]>;

const WAYS = [
	["singly", "one by one"],
	["tabs", "panel, held by tabs"],
	["score", "panel, scored"],
] as const satisfies readonly (readonly [Way, string])[];
const FIRST = { by: "tabs", columns: 2, rows: 2, rail_mm: 7 } as const;

/** Boards one by one or several on a panel: the choice, the drawing, what it comes to and what stands against it. */
export function Panel() {
	const { head, edit } = useDesign();
	const [board, setBoard] = useKept("panel board", head.boards[0]?.name ?? "");
	const chosen = head.choices.panel ?? null;
	const placed = !head.stale.includes("placement");
	const query = useQuery({
		queryKey: ["project", head.project, "panel", head.version, board],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/panel", {
					params: { path: { project_id: head.project }, query: { board } },
				}),
			),
		placeholderData: keepPreviousData,
		enabled: placed && chosen !== null,
		retry: false,
	});
	if (!placed) return null;
	const choose = (panel: Chosen | null) => void edit({ kind: "choose-panel", panel });
	const change = (part: Partial<Chosen>) => choose({ ...FIRST, ...chosen, ...part });
	const outline = head.boards.find((b) => b.name === board) ?? head.boards[0];
	const panel = chosen ? query.data : null;
	return (
		<section aria-label="Panel" className="border-b border-rule px-4 py-3">
			<div className="mb-2 flex flex-wrap items-center gap-3">
				<h2 className="font-semibold">Boards are made</h2>
				{chosen && head.boards.length > 1 && <BoardPicker board={board} show={setBoard} />}
			</div>
			<div className="flex flex-wrap gap-5">
				<div className="w-[230px] space-y-1.5">
					<Choice<Way>
						label="How"
						value={chosen?.by ?? "singly"}
						options={WAYS}
						set={(by) => (by === "singly" ? choose(null) : change({ by }))}
						beside
					/>
					{chosen && (
						<>
							<NumberField
								label="Columns"
								value={chosen.columns ?? 2}
								unit=""
								set={(columns) => columns && change({ columns })}
							/>
							<NumberField label="Rows" value={chosen.rows ?? 2} unit="" set={(rows) => rows && change({ rows })} />
							<NumberField
								label="Rails"
								value={chosen.rail_mm ?? 7}
								unit="mm"
								set={(rail_mm) => rail_mm && change({ rail_mm })}
							/>
							<dl
								className="grid grid-cols-[1fr_auto] gap-x-3 border-t border-rule pt-1.5 text-[12px]"
								data-testid="panel"
							>
								{panel?.figures.map((figure) => (
									<div key={figure.id} className="contents">
										<dt className="text-ink-2">{figure.title}</dt>
										<dd className="text-right">
											<Figure working={figure} unit={false} />
										</dd>
									</div>
								))}
							</dl>
						</>
					)}
				</div>
				{query.error && <p className="text-stop">{query.error.message}</p>}
				{panel && outline && (
					<>
						<PanelDrawing panel={panel} board={outline} />
						<Words panel={panel} by={chosen?.by ?? "tabs"} />
					</>
				)}
			</div>
		</section>
	);
}

function Words({ panel, by }: { panel: Schemas["PanelView"]; by: "tabs" | "score" }) {
	return (
		<ul className="min-w-[170px] flex-1 space-y-1 text-[12px]">
			{panel.troubles.map((trouble) => (
				<li key={trouble.sentence} className="flex items-start gap-1.5">
					<Sign kind="stop" size={12} />
					<span>
						{trouble.sentence} <span className="text-ink-2">{trouble.way_out}</span>
					</span>
				</li>
			))}
			{panel.troubles.length === 0 && (
				<li className="text-ink-2">
					{by === "tabs"
						? `${panel.tabs} tabs hold it, each with a row of 0.5 mm holes along the edge of a board. Break them one after the other with flat pliers and file the edge; wear glasses and do not breathe the dust.`
						: "Score lines run straight through. Bend along them over a table's edge, long lines first; wear glasses."}
				</li>
			)}
			<li className="text-ink-2">
				Rails carry tooling holes of 2 mm and three round marks for the machine, on both sides. The files of the panel
				lie in the package beside those of the single board.
			</li>
		</ul>
	);
}
