import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { walk } from "../../design/arrows";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { Picker } from "../../design/Picker";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { BudgetStrip } from "./BudgetStrip";
import { ChipPicture } from "./ChipPicture";
import { ChipSearch } from "./ChipSearch";
import { HandOver } from "./HandOver";
import { OwnChip } from "./OwnChip";
import { SchemeTable } from "./SchemeTable";
import { SignalList } from "./SignalList";
import { WaysOut } from "./WaysOut";

const VIEWS = [
	["chip", "Chip"],
	["keys", "Ways to read the keys"],
	["files", "Hand over"],
] as const;
type View = (typeof VIEWS)[number][0];

/** The chip with its pins, the ways to read the keys, ways out of a conflict, and what is handed over. */
export function PinsStation() {
	const { head, start, jobs, say } = useDesign();
	const queries = useQueryClient();
	const [drawer, setDrawer] = useState<"none" | "chips" | "own">("none");
	const [shown, setShown] = useKept<View>("pins view", "chip");
	const [brain, setBrain] = useKept("brain", "");
	const project = { params: { path: { project_id: head.project } } };
	const asked = { params: { path: { project_id: head.project }, query: { brain } } };
	const query = useQuery({
		queryKey: ["project", head.project, "pins", head.version, brain],
		queryFn: () => take(client.GET("/api/projects/{project_id}/pins", asked)),
		placeholderData: (before) => before,
	});
	const verdict = useQuery({
		queryKey: ["project", head.project, "verdict", head.version, brain],
		queryFn: () => take(client.GET("/api/projects/{project_id}/pin-verdict", asked)),
		enabled: query.data !== undefined && !query.data.solved,
		placeholderData: (before) => before,
	});
	const aims = useQuery({
		queryKey: ["project", head.project, "aims", head.version, jobs.length],
		queryFn: () => take(client.GET("/api/projects/{project_id}/aim", project)),
		enabled: query.data?.placed === true,
	});
	const gain = (aims.data ?? []).filter((a) => a.moved.length > 0);
	const aim = async () => {
		try {
			await take(client.POST("/api/projects/{project_id}/aim", project));
			await queries.invalidateQueries({ queryKey: ["project", head.project] });
			say({
				kind: "done",
				sentence: "The pins are now to be solved for the pads as they lie.",
				wayOut: "",
			});
			await start("everything");
		} catch (problem) {
			if (problem instanceof Refusal) say({ kind: "refused", sentence: problem.sentence, wayOut: problem.wayOut });
		}
	};
	const view = query.data;
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!view) return <p className="p-6 text-ink-2">Reading the chip.</p>;
	const busy = jobs.some((job) => job.kind === "pins");
	const stuck = !view.solved && verdict.data?.fits === false;
	return (
		<div className="flex min-h-0 flex-1 flex-col overflow-y-auto">
			<div className="flex items-center gap-2 border-b border-rule px-3 py-1.5">
				<Picker names={view.brains} shown={view.brain} mark="brain" show={setBrain} />
				<span className="text-[16px] font-semibold">{view.chip}</span>
				<span className="text-ink-2">{view.package}</span>
				<Button
					onClick={() => setDrawer((now) => (now === "chips" ? "none" : "chips"))}
					aria-expanded={drawer === "chips"}
				>
					Other chip
				</Button>
				<Button weight="quiet" onClick={() => setDrawer((now) => (now === "own" ? "none" : "own"))}>
					Own table
				</Button>
				<span className="flex-1" />
				<Verdict view={view} stuck={stuck} />
				{view.placed && (
					<Button
						weight="quiet"
						title="How much shorter would the ways be if the pins were solved for the parts as they lie on the board?"
						disabled={jobs.length > 0}
						onClick={() => void start("aim")}
						data-testid="aim"
					>
						Aim at the board
					</Button>
				)}
				<Button disabled={busy || stuck} onClick={() => void start("pins")} data-testid="solve-pins">
					{view.solved ? "Solve again" : "Solve the pins"}
				</Button>
			</div>
			{gain.length > 0 && (
				<p className="flex items-center gap-2 border-b border-rule bg-card px-4 py-2" data-testid="gain">
					<span className="min-w-0 flex-1">
						{gain
							.map(
								(a) =>
									`${a.brain}: ${a.after_mm.toFixed(0)} mm instead of ${a.before_mm.toFixed(0)} mm; ${a.moved.join(", ")} would change`,
							)
							.join("; ")}
						.
					</span>
					<Button disabled={jobs.length > 0} onClick={() => void aim()} data-testid="take-aim">
						Take it, and make all anew
					</Button>
				</p>
			)}
			{drawer === "chips" && <ChipSearch brain={view.brain} part={view.chip} close={() => setDrawer("none")} />}
			{drawer === "own" && <OwnChip close={() => setDrawer("none")} />}
			{!view.solved && verdict.isLoading && (
				<p className="border-b border-rule bg-card px-4 py-2 text-ink-2">Asking whether everything fits.</p>
			)}
			{stuck && verdict.data?.conflict && (
				<WaysOut conflict={verdict.data.conflict} ways={verdict.data.ways_out ?? null} />
			)}
			<div className="flex items-center border-b border-rule px-3 py-1">
				<div className="flex items-center gap-1" role="tablist" aria-label="Pins" onKeyDown={walk}>
					{VIEWS.map(([name, words]) => (
						<button
							key={name}
							type="button"
							role="tab"
							aria-selected={shown === name}
							data-view={name}
							className={`rounded-[3px] px-2.5 py-0.5 font-medium whitespace-nowrap ${shown === name ? "bg-ink text-paper" : "text-ink-2 hover:text-ink"}`}
							onClick={() => setShown(name)}
						>
							{words}
						</button>
					))}
				</div>
				<span className="flex-1" />
				<BudgetStrip view={view} />
			</div>
			{shown === "chip" && <ChipView view={view} />}
			{shown === "keys" && <SchemeTable brain={view.brain} />}
			{shown === "files" && <HandOver solved={view.solved} />}
		</div>
	);
}

function ChipView({ view }: { view: Schemas["PinsView"] }) {
	const [signal, setSignal] = useKept<string | null>("signal", null);
	return (
		<div className="flex min-h-[400px] flex-1">
			<ChipPicture view={view} signal={signal} pick={setSignal} />
			<div className="flex w-[250px] shrink-0 flex-col overflow-y-auto border-l border-rule">
				<SignalList view={view} signal={signal} pick={setSignal} />
				<div className="border-t border-rule p-3">
					<Figures workings={view.workings} />
					{view.solved && (
						<p className="mt-2 text-[12px] text-ink-2">
							{view.short_of.length
								? `Not kept free for later: ${view.short_of.join(", ")}.`
								: "Kept free for later: two plain pins, two analogue channels, a serial port, a two-wire bus."}
						</p>
					)}
					<p className="mt-2 text-[12px] text-ink-2">Pin data: {view.data_source}</p>
				</div>
			</div>
		</div>
	);
}

function Verdict({ view, stuck }: { view: Schemas["PinsView"]; stuck: boolean }) {
	const words = view.solved
		? view.proven
			? "no better plan exists"
			: "a good plan, not proven best"
		: stuck
			? "does not fit"
			: "not solved for this brief";
	return (
		<span className="flex items-center gap-1.5 whitespace-nowrap text-ink-2" data-testid="pin-verdict">
			<Sign kind={view.solved ? "clear" : stuck ? "stop" : "stale"} />
			{words}
		</span>
	);
}
