import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { useShown } from "../../app/reckoner";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { readingOf } from "./curve";
import type { Build, Probe, Unit } from "./useBuild";

const MANNERS = ["dead", "always", "together", "off"] as const;

/** Devices that are built: the bench unit, the fault finder, and what was read on each. */
export function UnitsPage({ build }: { build: Build }) {
	const { head } = useDesign();
	const [picked, setPicked] = useKept<number | null>("build unit", null);
	const [serial, setSerial] = useState("");
	const key = ["project", head.project, "units"];
	const { ask, problem } = useAsking(key);
	const params = { path: { project_id: head.project } };
	const list = useQuery({
		queryKey: key,
		queryFn: () => take(client.GET("/api/projects/{project_id}/units", { params })),
	});
	const units = list.data ?? [];
	const add = async (simulated: boolean) => {
		const name = serial.trim() || `${head.revision}-${String(units.length + 1).padStart(3, "0")}`;
		const made = await ask(() =>
			take(client.POST("/api/projects/{project_id}/units", { params, body: { serial: name, simulated } })),
		);
		if (made) {
			setPicked(made.id);
			setSerial("");
		}
	};
	const shown = units.find((unit) => unit.id === picked) ?? units[0];
	return (
		<div className="flex min-h-0 flex-1">
			<section aria-label="Units" className="w-[210px] shrink-0 overflow-y-auto border-r border-rule px-3 py-2">
				<ul data-testid="units">
					{units.map((unit) => (
						<li key={unit.id}>
							<button
								type="button"
								className={`flex w-full justify-between px-2 py-1 text-left ${unit.id === shown?.id ? "bg-board" : "hover:bg-card"}`}
								onClick={() => setPicked(unit.id)}
							>
								<span className="figure">{unit.serial}</span>
								<span className="text-[12px] text-ink-2">
									{unit.simulated ? "simulated" : `${unit.records} records`}
								</span>
							</button>
						</li>
					))}
				</ul>
				<input
					aria-label="Serial number"
					placeholder={`${head.revision}-${String(units.length + 1).padStart(3, "0")}`}
					className="figure mt-3 w-full border border-line bg-card px-2 py-1"
					value={serial}
					onChange={(event) => setSerial(event.target.value)}
				/>
				<div className="mt-2 flex flex-col items-start gap-1.5">
					<Button onClick={() => void add(false)} data-testid="new-unit">
						Begin a unit
					</Button>
					<Button onClick={() => void add(true)} data-testid="new-simulated">
						Begin a simulated one
					</Button>
				</div>
				{problem && <p className="mt-2 text-[12px] text-stop">{problem}</p>}
			</section>
			{shown ? (
				<Bench key={shown.id} id={shown.id} build={build} />
			) : (
				<p className="max-w-[420px] p-5 text-ink-2">
					Each device that is built gets a serial number, and everything that is read on it is kept with it. A simulated
					unit has a fault that you set: it shows how the finder works before a soldering iron is hot.
				</p>
			)}
		</div>
	);
}

function Bench({ id, build }: { id: number; build: Build }) {
	const { head } = useDesign();
	const key = ["project", head.project, "unit", id, head.version];
	const { ask, problem, busy } = useAsking(["project", head.project, "unit"]);
	const params = { path: { unit_id: id } };
	const query = useQuery({ queryKey: key, queryFn: () => take(client.GET("/api/units/{unit_id}", { params })) });
	const unit = query.data;
	if (!unit) return <p className="p-5 text-ink-2">{query.error?.message ?? "Looking at the unit."}</p>;
	const post = <T,>(work: () => Promise<T>) => void ask(work);
	return (
		<div className="flex min-h-0 min-w-0 flex-1">
			<div className="min-h-0 min-w-0 flex-1 overflow-y-auto px-4 py-2">
				<h2 className="flex items-center gap-3 font-semibold">
					Unit <span className="figure">{unit.serial}</span>
					{unit.simulated && (
						<span className="border border-legend px-1.5 text-[12px] font-normal text-legend">simulated</span>
					)}
				</h2>
				{unit.simulated && <SetFault id={id} unit={unit} post={post} />}
				{problem && <p className="mt-2 text-stop">{problem}</p>}
				{unit.simulated && (
					<div className="mt-2 flex flex-wrap gap-2">
						<Button
							disabled={busy}
							onClick={() => post(() => take(client.POST("/api/units/{unit_id}/first-power", { params })))}
							data-testid="first-power"
						>
							Read before and after power
						</Button>
						<Button
							disabled={busy}
							onClick={() => post(() => take(client.POST("/api/units/{unit_id}/keys", { params })))}
							data-testid="key-test"
						>
							Press every key
						</Button>
						{build.sticks.map((stick) => (
							<Button
								key={stick}
								disabled={busy}
								onClick={() => post(() => take(client.POST("/api/units/{unit_id}/stick", { params, body: { stick } })))}
							>
								Move {stick}
							</Button>
						))}
					</div>
				)}
				<Rundown id={id} post={post} />
				<Hunt unit={unit} build={build} id={id} post={post} busy={busy} />
			</div>
			<Records unit={unit} />
		</div>
	);
}

type Post = <T>(work: () => Promise<T>) => void;

function SetFault({ id, unit, post }: { id: number; unit: Unit; post: Post }) {
	const params = { path: { unit_id: id } };
	const faults = useQuery({
		queryKey: ["unit faults", id],
		queryFn: () => take(client.GET("/api/units/{unit_id}/faults", { params })),
	});
	const set = (which: "none" | "any" | number) =>
		post(() => take(client.POST("/api/units/{unit_id}/fault", { params, body: { which } })));
	return (
		<div className="mt-1 flex flex-wrap items-center gap-2 text-[12px]">
			<span className="text-ink-2">fault set in it:</span>
			<select
				aria-label="Fault set in the simulated unit"
				className="max-w-[380px] border border-line bg-card px-1 py-0.5"
				value={Math.max(-1, (faults.data ?? []).indexOf(unit.set_fault))}
				onChange={(event) => set(Number(event.target.value) < 0 ? "none" : Number(event.target.value))}
			>
				<option value={-1}>none</option>
				{(faults.data ?? []).map((words, index) => (
					<option key={words} value={index}>
						{words}
					</option>
				))}
			</select>
			<Button onClick={() => set("any")} data-testid="any-fault">
				Any one
			</Button>
		</div>
	);
}

function Rundown({ id, post }: { id: number; post: Post }) {
	const [hours, setHours] = useState("");
	const value = readingOf(hours);
	return (
		<form
			className="mt-2 flex items-center gap-2 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				if (value == null || value <= 0) return;
				post(() =>
					take(
						client.POST("/api/units/{unit_id}/rundown", { params: { path: { unit_id: id } }, body: { hours: value } }),
					),
				);
				setHours("");
			}}
		>
			<label className="flex items-center gap-2 text-ink-2">
				timed run-down from full
				<input
					aria-label="Hours of the run-down"
					className="figure w-[64px] border border-line bg-card px-1 py-0.5 text-right"
					value={hours}
					onChange={(event) => setHours(event.target.value)}
				/>
				h
			</label>
			<Button type="submit" disabled={value == null}>
				Keep
			</Button>
		</form>
	);
}

function Hunt({ unit, build, id, post, busy }: { unit: Unit; build: Build; id: number; post: Post; busy: boolean }) {
	const { show } = useShown();
	const params = { path: { unit_id: id } };
	const hunt = unit.hunt;
	const test = (probe: Probe, reading: number | null) =>
		post(() => take(client.POST("/api/units/{unit_id}/test", { params, body: { probe, reading } })));
	return (
		<section aria-label="Fault finder" className="mt-4">
			<h3 className="border-b border-ink pb-1 font-semibold">Fault finder</h3>
			<Seen build={build} simulated={unit.simulated} id={id} post={post} />
			{hunt && (
				<>
					{!hunt.sure && hunt.best.length > 0 && (
						<div className="mt-3" data-testid="next-tests">
							<p className="text-[12px] text-ink-2">
								Read next, the first tells most for its trouble. One thing at a time.
							</p>
							{hunt.best.map((probe, index) => (
								<TestRow
									key={probe.words}
									probe={probe}
									main={index === 0}
									simulated={unit.simulated}
									busy={busy}
									test={test}
								/>
							))}
						</div>
					)}
					<table className="mt-3 w-full" data-testid="causes" data-sure={hunt.sure}>
						<tbody>
							{hunt.causes
								.filter((c) => c.share > 0.004)
								.map((cause, index) => (
									<tr
										key={cause.name}
										className={`border-b border-rule align-top ${hunt.sure && index === 0 ? "font-medium" : ""}`}
									>
										<td className="w-[90px] py-1 pr-2">
											<span className="block h-[8px] border border-line">
												<span className="block h-full bg-copper" style={{ width: `${100 * cause.share}%` }} />
											</span>
											<span className="figure text-[12px] text-ink-2">{(100 * cause.share).toFixed(0)} %</span>
										</td>
										<td className="py-1">
											<button
												type="button"
												className="text-left hover:underline"
												onClick={() => show({ rule: "unit", about: cause.refs.map((ref) => `part:${ref}`) } as never)}
											>
												{cause.name}
											</button>
											<span className="block text-[12px] font-normal text-ink-2">
												{cause.words.slice(0, 2).join("; ")}
											</span>
										</td>
									</tr>
								))}
						</tbody>
					</table>
					<p className="mt-1 text-[12px] text-ink-2">
						{hunt.sure
							? `Found after ${hunt.tests} ${hunt.tests === 1 ? "test" : "tests"}. Mend this one thing, then read it again.`
							: `${hunt.tests} ${hunt.tests === 1 ? "test" : "tests"} so far. A cell or card of another brand is swapped first where the ledger names a substitute.`}
					</p>
				</>
			)}
		</section>
	);
}

function TestRow({
	probe,
	main,
	simulated,
	busy,
	test,
}: {
	probe: Probe;
	main: boolean;
	simulated: boolean;
	busy: boolean;
	test: (probe: Probe, reading: number | null) => void;
}) {
	const [text, setText] = useState("");
	const reading = readingOf(text);
	const looks = probe.sort === "look";
	return (
		<div
			className={`flex flex-wrap items-center gap-2 border-b border-rule py-1.5 ${main ? "font-medium" : ""}`}
			data-probe={probe.sort}
		>
			<span className="min-w-[220px] flex-1">{probe.words}</span>
			{simulated ? (
				<Button weight={main ? "main" : "plain"} disabled={busy} onClick={() => test(probe, null)} data-testid="read">
					Read it
				</Button>
			) : looks ? (
				<>
					<Button disabled={busy} onClick={() => test(probe, 1)}>
						It is wrong
					</Button>
					<Button disabled={busy} onClick={() => test(probe, 0)}>
						It is good
					</Button>
				</>
			) : (
				<form
					className="flex items-center gap-1"
					onSubmit={(event) => {
						event.preventDefault();
						if (reading != null) test(probe, reading);
					}}
				>
					<input
						aria-label={`Reading: ${probe.words}`}
						placeholder="4k7, open"
						className="figure w-[84px] border border-line bg-card px-1 py-0.5 text-right"
						value={text}
						onChange={(event) => setText(event.target.value)}
					/>
					<span className="text-ink-2">{probe.unit}</span>
					<Button type="submit" disabled={reading == null || busy}>
						Keep
					</Button>
				</form>
			)}
		</div>
	);
}

function Seen({ build, simulated, id, post }: { build: Build; simulated: boolean; id: number; post: Post }) {
	const params = { path: { unit_id: id } };
	const [dead, setDead] = useState(false);
	const [hot, setHot] = useState(false);
	const [broken, setBroken] = useState<string[]>([]);
	const [manner, setManner] = useState<(typeof MANNERS)[number] | "">("");
	const say = (observe: boolean) =>
		post(() =>
			take(client.POST("/api/units/{unit_id}/symptom", { params, body: { observe, dead, hot, broken, manner } })),
		);
	return (
		<div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[12px]">
			<span className="text-ink-2">What is seen first:</span>
			<label className="flex items-center gap-1">
				<input type="checkbox" checked={dead} onChange={(event) => setDead(event.target.checked)} /> nothing works
			</label>
			<label className="flex items-center gap-1">
				<input type="checkbox" checked={hot} onChange={(event) => setHot(event.target.checked)} /> it draws far too much
			</label>
			<label className="flex items-center gap-1">
				not working
				<select
					aria-label="What does not work"
					className="max-w-[170px] border border-line bg-card px-1 py-0.5"
					value=""
					onChange={(event) => event.target.value && setBroken([...new Set([...broken, event.target.value])])}
				>
					<option value="">choose</option>
					{build.functions.map((name) => (
						<option key={name} value={name}>
							{name}
						</option>
					))}
				</select>
			</label>
			{broken.map((name) => (
				<button
					key={name}
					type="button"
					className="border border-line bg-card px-1.5"
					title="Take it out"
					onClick={() => setBroken(broken.filter((b) => b !== name))}
				>
					{name} ×
				</button>
			))}
			{broken.length > 0 && (
				<select
					aria-label="In which manner"
					className="border border-line bg-card px-1 py-0.5"
					value={manner}
					onChange={(event) => setManner(event.target.value as typeof manner)}
				>
					<option value="">in which manner</option>
					<option value="dead">does nothing</option>
					<option value="always">always on</option>
					<option value="together">together with another</option>
					<option value="off">off its place</option>
				</select>
			)}
			<Button onClick={() => say(false)} data-testid="hunt">
				Hunt for it
			</Button>
			{simulated && (
				<Button weight="main" onClick={() => say(true)} data-testid="observe">
					Look at the simulated unit
				</Button>
			)}
		</div>
	);
}

function Records({ unit }: { unit: Unit }) {
	return (
		<section aria-label="Records" className="w-[270px] shrink-0 overflow-y-auto border-l border-rule px-3 py-2">
			<h3 className="border-b border-ink pb-1 font-semibold">Record of this unit</h3>
			<ul className="text-[12px]" data-testid="records">
				{unit.records.map((row, index) => (
					<li
						// biome-ignore lint/suspicious/noArrayIndexKey: records are only added, the newest first
						key={unit.records.length - index}
						className="flex items-start gap-2 border-b border-rule py-1"
					>
						<span className="mt-[2px]">
							<Sign kind={row.good == null ? "note" : row.good ? "clear" : "stop"} size={11} />
						</span>
						<span>
							<span className="text-ink-2">{row.sort}</span> {row.words}
						</span>
					</li>
				))}
			</ul>
			{unit.records.length === 0 && <p className="py-2 text-[12px] text-ink-2">Nothing has been read yet.</p>}
		</section>
	);
}
