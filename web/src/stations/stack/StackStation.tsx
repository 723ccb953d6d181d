import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { client, take } from "../../api/client";
import { BoardPicker } from "../../app/BoardPicker";
import { Coming, GhostBoard } from "../../app/Coming";
import { Switch } from "../../design/Switch";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { Openings } from "./Openings";
import { Shell } from "./Shell";
import { SideCut } from "./SideCut";
import { acrossMiddle, type Line } from "./stack";
import { Together } from "./Together";

const StackSolid = lazy(() => import("./StackSolid"));
type Look = "cut" | "apart" | "openings" | "together";
const LOOKS: [Look, string, string][] = [
	["cut", "Side cut", "along a line that you drag"],
	["apart", "Taken apart", "every body at its true height"],
	["openings", "Openings", "what comes through the shell, and templates"],
	["together", "Putting together", "the order, and what is reached"],
];

/** The device in the third dimension: side cut, taken apart, openings, order. */
export function StackStation() {
	const { head } = useDesign();
	const [board, setBoard] = useKept("stack board", head.boards[0]?.name ?? "");
	const [look, setLook] = useKept<Look>("stack look", "cut");
	const [apart, setApart] = useKept("stack apart", 12);
	const [line, setLine] = useKept<Line | null>(`stack line ${board}`, null);
	const placed = !head.stale.includes("placement");
	const query = useQuery({
		queryKey: ["project", head.project, "stack", head.version, board],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/stack", {
					params: { path: { project_id: head.project }, query: { board } },
				}),
			),
		placeholderData: keepPreviousData,
		enabled: placed,
		retry: false,
	});
	if (!placed)
		return (
			<Coming title="The stack will be cut open here" until="placement">
				<GhostBoard board={board} />
			</Coming>
		);
	const stack = query.data;
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex flex-wrap items-center gap-3 border-b border-rule px-4 py-2">
				<Switch label="View" mark="look" views={LOOKS} shown={look} show={setLook} />
				{head.boards.length > 1 && <BoardPicker board={board} show={setBoard} />}
				{look === "apart" && (
					<label className="flex items-center gap-2 text-[12px]">
						apart
						<input
							type="range"
							min={0}
							max={30}
							value={apart}
							aria-label="Apart, mm"
							onChange={(event) => setApart(Number(event.target.value))}
						/>
						<span className="figure">{apart} mm</span>
					</label>
				)}
			</div>
			{query.error && <p className="p-6 text-stop">{query.error.message}</p>}
			{stack && (
				<div className="flex min-h-0 flex-1">
					<div className="flex min-h-0 min-w-0 flex-1 flex-col">
						{look === "cut" && <SideCut stack={stack} line={line ?? acrossMiddle(stack)} setLine={setLine} />}
						{look === "apart" && (
							<Suspense fallback={<p className="flex-1 p-6 text-ink-2">Taking it apart.</p>}>
								<StackSolid stack={stack} apart={apart} />
							</Suspense>
						)}
						{look === "openings" && <Openings stack={stack} />}
						{look === "together" && <Together stack={stack} />}
					</div>
					<Shell
						stack={stack}
						cut={(where) => {
							setLook("cut");
							setLine(where);
						}}
					/>
				</div>
			)}
		</div>
	);
}
