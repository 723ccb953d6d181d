import { useState } from "react";
import { useNavigate } from "react-router";
import type { Edit, Finding } from "../api/client";
import { Button } from "../design/Button";
import { Figure } from "../design/Figure";
import { Sign } from "../design/Sign";
import { useDesign } from "../document/useDesign";
import { useShown } from "./reckoner";
import type { StationName } from "./stations";

const WISH = "findings tray";
const ROOMY = 1200;

/** This station's stops, looks and notes; a press shows what each is about. Folds to an edge while there is nothing to say or little room, and keeps what a person chose. */
export function FindingsTray({ station }: { station: StationName }) {
	const { head } = useDesign();
	const [wish, setWish] = useState(() => localStorage.getItem(WISH) ?? "");
	const findings = head.findings.filter(
		(f) => f.station === station || (station === "release" && f.severity === "stop"),
	);
	const usual = findings.length > 0 && window.innerWidth >= ROOMY;
	const open = wish === "folded" ? false : wish === "open" || usual;
	const setOpen = (to: boolean) => {
		const said = to === usual ? "" : to ? "open" : "folded";
		localStorage.setItem(WISH, said);
		setWish(said);
	};
	if (!open)
		return (
			<aside aria-label="Findings" className="w-[34px] shrink-0 border-l border-rule bg-card">
				<button
					type="button"
					className="flex w-full flex-col items-center gap-1 py-3"
					onClick={() => setOpen(true)}
					aria-label={`${findings.length} findings, unfold them`}
				>
					<Sign kind={findings.some((f) => f.severity === "stop") ? "stop" : "clear"} />
					<span className="figure text-[12px]">{findings.length}</span>
				</button>
			</aside>
		);
	return (
		<aside aria-label="Findings" className="flex w-[300px] shrink-0 flex-col border-l border-rule bg-card">
			<div className="flex items-center justify-between border-b border-rule px-3 py-2">
				<h2 className="font-semibold">Findings</h2>
				<button type="button" className="text-[12px] text-patina hover:underline" onClick={() => setOpen(false)}>
					Fold
				</button>
			</div>
			<ul className="min-h-0 flex-1 overflow-y-auto">
				{findings.length === 0 && (
					<li className="flex items-center gap-2 p-3 text-ink-2">
						<Sign kind="clear" /> Nothing to report at this station.
					</li>
				)}
				{findings.map((finding) => (
					<Row key={`${finding.rule}${finding.sentence}`} finding={finding} />
				))}
			</ul>
		</aside>
	);
}

function Row({ finding }: { finding: Finding }) {
	const { show } = useShown();
	const { head, edit } = useDesign();
	const navigate = useNavigate();
	const shown = { about: finding.about ?? [], x: finding.x_mm ?? null, y: finding.y_mm ?? null };
	const repairs = finding.repairs ?? [];
	const place = finding.x_mm != null && finding.y_mm != null;
	return (
		<li data-finding={finding.rule} className="border-b border-rule">
			<button type="button" className="flex w-full gap-2 p-3 text-left hover:bg-paper" onClick={() => show(shown)}>
				<span className="mt-[3px]">
					<Sign kind={finding.severity} />
				</span>
				<span>
					<span className="block">
						<span className="font-medium capitalize">{finding.severity}: </span>
						{finding.sentence}
					</span>
					<span className="mt-1 block text-[12px] text-ink-2">{finding.way_out}</span>
					{place && (
						<span className="figure mt-1 block text-[12px] text-ink-2">
							at {finding.x_mm?.toFixed(2)}, {finding.y_mm?.toFixed(2)} mm
						</span>
					)}
				</span>
			</button>
			{(repairs.length > 0 || finding.working || finding.state) && (
				<div className="flex flex-wrap items-center gap-1.5 px-3 pb-2 pl-9 text-[12px]">
					{finding.working && (
						<span className="mr-1">
							<Figure working={finding.working} />
						</span>
					)}
					{finding.state && (
						<Button
							className="!py-0"
							data-testid="switch-on-so"
							onClick={() => {
								show({ ...shown, state: finding.state });
								navigate(`/project/${head.project}/circuit`);
							}}
						>
							Switch it on so
						</Button>
					)}
					{repairs.map((repair) => (
						<Button
							key={repair.label}
							className="!py-0 !whitespace-normal text-left"
							data-repair={repair.label}
							onClick={() => void edit(repair.edit as Edit)}
						>
							{repair.label}
						</Button>
					))}
				</div>
			)}
		</li>
	);
}
