import { BoardPicker } from "../../app/BoardPicker";
import { Coming, GhostBoard } from "../../app/Coming";
import { Switch } from "../../design/Switch";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { HeatingPage } from "./HeatingPage";
import { PowerPage } from "./PowerPage";
import { StepsPage } from "./StepsPage";
import { UnitsPage } from "./UnitsPage";
import { useBuild } from "./useBuild";

type Page = "steps" | "heating" | "power" | "units";
const PAGES: [Page, string, string][] = [
	["steps", "Soldering", "one step at a time"],
	["heating", "Heating", "the reflow profile, and a recorded curve"],
	["power", "First power", "what a meter should show"],
	["units", "Units", "bench unit, fault finder, records"],
];

/** From parts to a working device. */
export function BuildStation() {
	const { head } = useDesign();
	const [board, setBoard] = useKept("build board", head.boards[0]?.name ?? "");
	const [page, setPage] = useKept<Page>("build page", "steps");
	const [way, setWay] = useKept<"hand" | "plate">("build way", "hand");
	const [paste, setPaste] = useKept("build paste", "lead-free");
	const placed = !head.stale.includes("placement");
	const query = useBuild(board, way, paste, placed);
	if (!placed)
		return (
			<Coming title="The steps of building it will be here" until="placement">
				<GhostBoard board={board} />
			</Coming>
		);
	const build = query.data;
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex flex-wrap items-center gap-3 border-b border-rule px-4 py-2">
				<Switch label="Page" mark="page" views={PAGES} shown={page} show={setPage} />
				{head.boards.length > 1 && page === "steps" && <BoardPicker board={board} show={setBoard} />}
				{page === "steps" && (
					<select
						aria-label="How it is soldered"
						className="border border-line bg-card px-1 py-1"
						value={way}
						onChange={(event) => setWay(event.target.value as typeof way)}
					>
						<option value="hand">surface parts by iron</option>
						<option value="plate">surface parts by paste and plate</option>
					</select>
				)}
				{page === "heating" && (
					<select
						aria-label="Paste"
						className="border border-line bg-card px-1 py-1"
						value={build?.paste.id ?? paste}
						onChange={(event) => setPaste(event.target.value)}
					>
						{(build?.pastes ?? []).map((one) => (
							<option key={one.id} value={one.id}>
								{one.name}
							</option>
						))}
					</select>
				)}
			</div>
			{query.error && <p className="p-6 text-stop">{query.error.message}</p>}
			{build && page === "steps" && <StepsPage build={build} board={board} />}
			{build && page === "heating" && <HeatingPage build={build} />}
			{build && page === "power" && <PowerPage build={build} />}
			{build && page === "units" && <UnitsPage build={build} />}
		</div>
	);
}
