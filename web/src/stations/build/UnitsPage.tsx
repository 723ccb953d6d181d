import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { BenchLink, type Link } from "./BenchLink";
import { ControlTests } from "./ControlTests";
import { readingOf } from "./curve";
import { Hunt } from "./Hunt";
import type { Build, Post, Unit } from "./useBuild";

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
									{unit.revision !== head.revision && `rev. ${unit.revision}, `}
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
	const [link, setLink] = useKept<Link>("bench unit", { at: "", name: "" });
	const path = { unit_id: id };
	const query = useQuery({
		queryKey: key,
		queryFn: () => take(client.GET("/api/units/{unit_id}", { params: { path } })),
	});
	const unit = query.data;
	const linked = unit && !unit.simulated && link.name !== "";
	const params = { path, query: linked ? { at: link.at } : {} };
	const asks = unit?.simulated || linked || false;
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
				{unit.simulated ? <SetFault id={id} unit={unit} post={post} /> : <BenchLink link={link} setLink={setLink} />}
				{problem && <p className="mt-2 text-stop">{problem}</p>}
				{asks && (
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
				<ControlTests unit={unit} />
				<Rundown id={id} post={post} />
				<Hunt unit={unit} build={build} params={params} asks={asks} post={post} busy={busy} />
			</div>
			<Records unit={unit} />
		</div>
	);
}

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
