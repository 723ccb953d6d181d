import { Sign } from "../design/Sign";
import { useDesign } from "../document/useDesign";

const DOING: Record<string, string> = {
	pins: "Solving pins",
	circuit: "Making the circuit",
	placement: "Placing",
	routing: "Routing",
	pour: "Pouring",
	board: "Making the board",
	everything: "Making everything",
	release: "Writing and proving the files",
};

/** What is under the pointer, and the running job with its stop button. */
export function ReckonerStrip({ text }: { text: string }) {
	const { jobs, stop } = useDesign();
	const job = jobs[0];
	return (
		<footer className="figure flex h-[28px] shrink-0 items-center gap-4 border-t border-rule bg-card px-4 text-[12px]">
			<span className="min-w-0 flex-1 truncate" data-testid="reckoner">
				{text || "Point at something to read it here."}
			</span>
			{job && (
				<span className="flex items-center gap-2" data-testid="job">
					<Sign kind="working" size={12} />
					{DOING[job.kind] ?? job.kind}: {job.doing}
					<progress value={job.share} max={1} className="h-[8px] w-[90px] accent-patina" aria-label="Progress" />
					<button type="button" className="border border-stop px-1.5 text-stop" onClick={() => stop(job.id)}>
						Stop
					</button>
				</span>
			)}
		</footer>
	);
}
