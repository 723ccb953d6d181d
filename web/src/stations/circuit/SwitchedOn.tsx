import type { Finding } from "../../api/client";
import { Choice } from "../../design/Choice";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { type Load, litBy, type On, saidMa, stateText } from "./lit";
import type { Picked } from "./picked";
import { VoltsScale } from "./VoltsScale";

const ABSENT = "" as const;
const ACTS: readonly (readonly [On["acts"], string])[] = [
	["reset", "not started yet"],
	["runs", "in use"],
	["high", "all lines high"],
	["low", "all lines low"],
	["asleep", "asleep"],
	["dark", "switched off"],
];
const MODES: readonly (readonly [On["mode"], string])[] = [
	["play", "as in play"],
	["idle", "as while it waits"],
	["sleep", "as asleep"],
	["peak", "everything on at once"],
];
const NO_KEY = "";
const MOST_LOADS = 10;
const LEAST = 0.005;

/** What can be switched, plugged and pressed, the states in which something is wrong, and what is loaded most. */
export function SwitchedOn({
	on,
	set,
	picked,
	pick,
}: {
	on: On;
	set: (state: string) => void;
	picked: Picked;
	pick: (picked: Picked) => void;
}) {
	const { head } = useDesign();
	const put = (change: Partial<On>) => set(stateText({ ...on, ...change }));
	const wrong = head.findings.filter((f) => f.state);
	const lit = litBy(on);
	return (
		<section aria-label="Switched on" className="flex min-h-0 flex-1 flex-col overflow-y-auto">
			<div className="space-y-1.5 border-b border-rule p-2">
				{on.sources.map((source) => (
					<div key={source.name}>
						<Choice
							label={source.label}
							value={source.level}
							options={[
								[ABSENT, "not there"],
								...source.levels.map((l) => [l.level, `${l.words}, ${l.volts.toFixed(1)} V`] as const),
							]}
							set={(level) => put({ sources: on.sources.map((s) => (s.name === source.name ? { ...s, level } : s)) })}
						/>
						{source.level && (
							<p className="mt-0.5 text-[12px] text-ink-2">
								{source.gives_ma < -0.05 ? "takes" : "gives"}{" "}
								<span className="figure text-ink">{saidMa(Math.abs(source.gives_ma))}</span>
							</p>
						)}
					</div>
				))}
				{on.switch && (
					<Choice
						label={on.switch}
						value={on.on ? "on" : "off"}
						options={[
							["on", "on"],
							["off", "off"],
						]}
						set={(to) => put(to === "on" ? { on: true, acts: "high" } : { on: false, acts: "dark" })}
					/>
				)}
				<Choice label="Its brain is" value={on.acts} options={ACTS} set={(acts) => put({ acts })} />
				<Choice label="Loads draw" value={on.mode} options={MODES} set={(mode) => put({ mode })} />
				{on.keys.length > 0 && (
					<Choice
						label="Key held"
						value={on.key}
						options={[[NO_KEY, "none"], ...on.keys.map((key) => [key, key] as const)]}
						set={(key) => put({ key })}
					/>
				)}
			</div>
			{lit && (
				<div className="border-b border-rule px-3 py-1.5 text-ink-2">
					<VoltsScale lit={lit} />
				</div>
			)}
			<h3 className="px-3 pt-2 font-semibold">Worst states</h3>
			{wrong.length === 0 && (
				<p className="flex items-start gap-2 px-3 py-1 text-[12px]">
					<Sign kind="clear" />
					<span>
						Nothing is wrong in any of <span className="figure">{on.states}</span> states.
					</span>
				</p>
			)}
			<ol className="border-b border-rule pb-1">
				{wrong.map((finding) => (
					<Worst
						key={`${finding.rule}${finding.sentence}`}
						finding={finding}
						here={finding.state === on.id}
						set={set}
						pick={pick}
					/>
				))}
			</ol>
			<h3 className="px-3 pt-2 font-semibold">Loaded most</h3>
			<ul className="pb-2">
				{on.loads
					.filter((l) => l.share >= LEAST)
					.slice(0, MOST_LOADS)
					.map((load) => (
						<LoadRow
							key={load.ref}
							load={load}
							open={picked?.kind === "part" && picked.name === load.ref}
							pick={pick}
						/>
					))}
			</ul>
		</section>
	);
}

function Worst({
	finding,
	here,
	set,
	pick,
}: {
	finding: Finding;
	here: boolean;
	set: (state: string) => void;
	pick: (picked: Picked) => void;
}) {
	const part = finding.about?.find((a) => a.startsWith("part:"))?.slice("part:".length);
	return (
		<li>
			<button
				type="button"
				data-worst={finding.rule}
				aria-current={here}
				className={`flex w-full gap-2 px-3 py-1 text-left text-[12px] hover:bg-card ${here ? "bg-board/60" : ""}`}
				onClick={() => {
					set(finding.state ?? "");
					if (part) pick({ kind: "part", name: part });
				}}
			>
				<span className="mt-0.5">
					<Sign kind={finding.severity} />
				</span>
				<span className="min-w-0">{finding.sentence}</span>
			</button>
		</li>
	);
}

function LoadRow({ load, open, pick }: { load: Load; open: boolean; pick: (picked: Picked) => void }) {
	const over = load.share > 1;
	return (
		<li className={`px-3 py-0.5 text-[12px] ${open ? "bg-board/60" : ""}`} data-load={load.ref}>
			<div className="flex items-baseline justify-between gap-2">
				<button type="button" className="figure hover:underline" onClick={() => pick({ kind: "part", name: load.ref })}>
					{load.ref}
				</button>
				<span className={`min-w-0 flex-1 truncate ${over ? "text-stop" : "text-ink-2"}`}>
					{load.words} <span className="figure">{shortly(load.amount)}</span> of{" "}
					<span className="figure">{shortly(load.limit)}</span> {load.unit}
				</span>
				<Figure working={load.working} />
			</div>
		</li>
	);
}

const shortly = (value: number) => (value >= 100 ? value.toFixed(0) : Number(value.toPrecision(3)).toString());
