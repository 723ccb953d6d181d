import { useEffect, useRef, useState } from "react";
import type { Edit, Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Way = Schemas["WayOut"];

/** Why the brief does not fit, and what to do: each way was tried on the solver before it is offered, as a job that starts by itself. */
export function WaysOut({ conflict, ways: found }: { conflict: Schemas["Conflict"]; ways: Way[] | null }) {
	const { head, edit, jobs, start } = useDesign();
	const [waiting, setWaiting] = useState(false);
	const looking = waiting || jobs.some((job) => job.kind === "ways out");
	const asked = useRef(0);
	const look = useRef(async () => {});
	look.current = async () => {
		setWaiting(true);
		await start("ways out");
		setWaiting(false);
	};
	useEffect(() => {
		if (found !== null || looking || asked.current === head.version) return;
		asked.current = head.version;
		void look.current();
	}, [found, looking, head.version]);
	const ways = found ?? [];
	const [all, setAll] = useState(false);
	const take = async (way: Way) => {
		for (const one of way.edits) if (!(await edit(one as Edit))) return;
	};
	const shown = all ? ways : ways.slice(0, 3);
	return (
		<section
			aria-label="Ways out"
			data-testid="ways-out"
			className="max-h-[300px] shrink-0 overflow-y-auto border-b border-rule bg-card px-3 py-2"
		>
			<p className="flex items-start gap-2">
				<span className="mt-[3px]">
					<Sign kind="stop" />
				</span>
				<span>
					<span className="font-medium">{conflict.why}</span>{" "}
					<span className="text-ink-2" title={conflict.titles.join(", ")}>
						{ways.length
							? `Each of these ${ways.length} ways out was tried and works; the cheapest first.`
							: conflict.way_out}
						{found === null && looking && " Ways out are being tried on the solver."}
					</span>
					{found === null && !looking && (
						<Button className="ml-2 !py-0" onClick={() => void look.current()}>
							Look for ways out
						</Button>
					)}
				</span>
			</p>
			<ul className="mt-1">
				{shown.map((way) => (
					<li key={way.title} data-way={way.title} className="flex items-center gap-3 border-t border-rule py-1">
						<span className="min-w-0 flex-1">
							<span className="block truncate font-medium">{way.title}</span>
							<span className="block truncate text-[12px] text-ink-2" title={way.gives_up}>
								{way.gives_up}
							</span>
						</span>
						<span className="shrink-0 text-right text-[12px] whitespace-nowrap">
							<span className="figure">{way.price_cents ? `+ ${(way.price_cents / 100).toFixed(2)} €` : "0.00 €"}</span>{" "}
							<span className="text-ink-2">a device, counts as</span> <Figure working={way.working} unit={false} />
						</span>
						<Button data-testid="take" onClick={() => void take(way)}>
							Take it
						</Button>
					</li>
				))}
			</ul>
			{ways.length > 3 && (
				<Button weight="quiet" onClick={() => setAll((now) => !now)}>
					{all ? "Show the first three" : `Show ${ways.length - 3} more`}
				</Button>
			)}
		</section>
	);
}
