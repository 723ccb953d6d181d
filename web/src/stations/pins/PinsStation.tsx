import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { ChipDrawing } from "./ChipDrawing";
import { ChipSearch } from "./ChipSearch";
import { SignalList } from "./SignalList";

/** The chip with its pins around it, the signals with their locks, and the budget. */
export function PinsStation() {
	const { head, start, jobs } = useDesign();
	const [searching, setSearching] = useState(false);
	const [signal, setSignal] = useState<string | null>(null);
	const query = useQuery({
		queryKey: ["project", head.project, "pins", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/pins", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const view = query.data;
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!view) return <p className="p-6 text-ink-2">Reading the chip.</p>;
	const busy = jobs.some((job) => job.kind === "pins");
	const used = view.pins.filter((p) => p.signal).length;
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex items-center gap-3 border-b border-rule px-4 py-2">
				<span className="text-[16px] font-semibold">{view.chip}</span>
				<span className="text-ink-2">{view.package}</span>
				<Button onClick={() => setSearching((now) => !now)} aria-expanded={searching}>
					Other chip
				</Button>
				<span className="flex-1" />
				<span className="flex items-center gap-1.5 text-ink-2" data-testid="pin-verdict">
					<Sign kind={view.solved ? "clear" : "stale"} />
					{view.solved
						? view.proven
							? "no better plan exists"
							: "a good plan, not proven best"
						: "not solved for this brief"}
				</span>
				<Button weight="main" disabled={busy} onClick={() => void start("pins")} data-testid="solve-pins">
					{view.solved ? "Solve again" : "Solve the pins"}
				</Button>
			</div>
			{searching && <ChipSearch close={() => setSearching(false)} />}
			<Budget used={used} reserved={view.reserved} free={view.free} total={view.pins.length} />
			<div className="flex min-h-0 flex-1">
				<ChipDrawing view={view} signal={signal} pick={setSignal} />
				<div className="flex w-[300px] shrink-0 flex-col overflow-y-auto border-l border-rule">
					<SignalList view={view} signal={signal} pick={setSignal} />
					<div className="border-t border-rule p-3">
						<Figures workings={view.workings} />
						<p className="mt-2 text-[12px] text-ink-2">Pin data: {view.data_source}</p>
					</div>
				</div>
			</div>
		</div>
	);
}

function Budget({ used, reserved, free, total }: { used: number; reserved: number; free: number; total: number }) {
	const parts: [string, number, string][] = [
		["used", used, "var(--color-copper)"],
		["supply, ground, reset", reserved, "#8d8676"],
		["spare", Math.max(0, free), "var(--color-board)"],
	];
	return (
		<div className="flex items-center gap-4 border-b border-rule px-4 py-1.5 text-[12px]" data-testid="budget">
			<div className="flex h-[12px] w-[260px] border border-ink">
				{parts.map(([name, count, colour]) => (
					<div
						key={name}
						style={{ width: `${(100 * count) / total}%`, background: colour }}
						className="border-r border-ink last:border-0"
					/>
				))}
			</div>
			{parts.map(([name, count]) => (
				<span key={name}>
					<span className="figure">{count}</span> <span className="text-ink-2">{name}</span>
				</span>
			))}
		</div>
	);
}
