import { useNavigate } from "react-router";
import type { JobKind } from "../api/client";
import { Button } from "../design/Button";
import { Sign, type SignKind } from "../design/Sign";
import { type Notice, useDesign } from "../document/useDesign";
import type { StationName } from "./stations";

const DOING: Record<string, string> = {
	pins: "Solving pins",
	"ways out": "Ways out",
	circuit: "Making the circuit",
	placement: "Placing",
	routing: "Routing",
	pour: "Pouring",
	everything: "Making everything",
	finish: "Finishing",
	release: "Writing and proving the files",
};

const SIGNS: Record<Notice["kind"], SignKind> = {
	done: "clear",
	short: "look",
	away: "working",
	refused: "stop",
	conflict: "stop",
};

/** Where the design stands, in one line, and the one thing to do next; while a job runs, what it does. */
export function NextLine({ station }: { station: StationName }) {
	const { head, jobs, notice, dismiss, start, stop } = useDesign();
	const navigate = useNavigate();
	const [job] = jobs;
	const { sentence, action, job: wanted, station: there } = head.next;
	const here = !wanted && there === station;
	return (
		<div
			className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule bg-paper px-4 leading-tight"
			data-testid="next"
		>
			{job ? (
				<>
					<Sign kind="working" size={12} />
					<span className="flex-1" data-testid="job">
						{DOING[job.kind] ?? job.kind}: {job.doing}
						<span className="figure ml-2 text-ink-2">{Math.round(job.share * 100)} %</span>
					</span>
					<progress className="h-[6px] w-[160px] accent-copper" max={1} value={job.share} aria-label="Progress" />
					<Button onClick={() => stop(job.id)}>Stop</Button>
				</>
			) : (
				<>
					{notice ? (
						<Said notice={notice} dismiss={dismiss} />
					) : (
						<span className="max-h-full flex-1 overflow-y-auto">{sentence}</span>
					)}
					{wanted === "everything" && (
						<Button
							data-testid="finish"
							title="Make the board, then write and prove its files; says where it stops, and why"
							onClick={() => void start("finish")}
						>
							Finish it
						</Button>
					)}
					{action && !here && (
						<Button
							weight="main"
							data-testid="next-action"
							onClick={() =>
								wanted ? void start(wanted as JobKind) : navigate(`/project/${head.project}/${there || "release"}`)
							}
						>
							{action}
						</Button>
					)}
				</>
			)}
		</div>
	);
}

/** What was just done or refused, in the place of the line until it is dismissed or something else is done. */
function Said({ notice, dismiss }: { notice: Notice; dismiss: () => void }) {
	return (
		<div
			role="status"
			data-testid="notice"
			data-kind={notice.kind}
			className="flex max-h-full min-w-0 flex-1 items-center gap-2"
		>
			<Sign kind={SIGNS[notice.kind]} />
			<span className="max-h-full flex-1 overflow-y-auto">
				{notice.sentence} <span className="text-ink-2">{notice.wayOut}</span>
			</span>
			<Button weight="quiet" onClick={dismiss}>
				Dismiss
			</Button>
		</div>
	);
}
