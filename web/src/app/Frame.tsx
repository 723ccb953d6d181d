import { useEffect, useMemo, useState } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import { DesignContext, useDesign, useDesignState } from "../document/useDesign";
import { BoardStation } from "../stations/board/BoardStation";
import { BriefStation } from "../stations/brief/BriefStation";
import { BuildStation } from "../stations/build/BuildStation";
import { CircuitStation } from "../stations/circuit/CircuitStation";
import { LogStation } from "../stations/log/LogStation";
import { PartsStation } from "../stations/parts/PartsStation";
import { PinsStation } from "../stations/pins/PinsStation";
import { PowerStation } from "../stations/power/PowerStation";
import { ReleaseStation } from "../stations/release/ReleaseStation";
import { StackStation } from "../stations/stack/StackStation";
import { Finder } from "./Finder";
import { FindingsTray } from "./FindingsTray";
import { HeadStrip } from "./HeadStrip";
import { History } from "./History";
import { KeySheet } from "./KeySheet";
import { NextLine } from "./NextLine";
import { Plain } from "./Nowhere";
import { ReckonerStrip } from "./ReckonerStrip";
import { ReckonerContext, type Shown, ShownContext } from "./reckoner";
import { StationRail } from "./StationRail";
import { isStation, STATIONS, type StationName } from "./stations";

/** A project: rail, head strip, station, findings, reckoner. */
export function Frame() {
	const { project, station } = useParams();
	const { design, failure } = useDesignState(Number(project));
	if (!isStation(station)) return <Navigate to={`/project/${project}/brief`} replace />;
	if (failure) return <Plain title={failure.sentence} text={failure.wayOut} />;
	if (!design) return <main className="p-10 text-ink-2">Opening the project.</main>;
	return (
		<DesignContext.Provider value={design}>
			<Inside station={station} />
		</DesignContext.Provider>
	);
}

function Inside({ station }: { station: StationName }) {
	const design = useDesign();
	const navigate = useNavigate();
	const [text, setText] = useState("");
	const [shown, setShown] = useState<Shown>(null);
	const [finding, setFinding] = useState(false);
	const [keys, setKeys] = useState(false);
	const [history, setHistory] = useState(false);
	const focus = useMemo(() => ({ shown, show: setShown }), [shown]);
	const { undo, redo } = design;
	const { project, name } = design.head;

	useEffect(() => {
		document.title = `${name}, ${station}, Loquet`;
	}, [name, station]);

	useEffect(() => {
		const press = (event: KeyboardEvent) => {
			const typing =
				event.target instanceof HTMLElement &&
				/^(INPUT|SELECT|TEXTAREA)$/.test(event.target.tagName) &&
				!(event.target instanceof HTMLInputElement && /^(checkbox|radio|button)$/.test(event.target.type));
			if (event.ctrlKey && event.key.toLowerCase() === "k") {
				event.preventDefault();
				setFinding(true);
			} else if (typing) {
				return;
			} else if (event.ctrlKey && event.key.toLowerCase() === "z") {
				event.preventDefault();
				if (event.shiftKey) redo();
				else undo();
			} else if (event.ctrlKey && event.key.toLowerCase() === "y") {
				event.preventDefault();
				redo();
			} else if (event.key === "?") {
				setKeys(true);
			} else if (/^[0-9]$/.test(event.key) && !event.ctrlKey && !event.altKey) {
				navigate(`/project/${project}/${STATIONS[(Number(event.key) + 9) % 10]?.name ?? "brief"}`);
			}
		};
		window.addEventListener("keydown", press);
		return () => window.removeEventListener("keydown", press);
	}, [undo, redo, navigate, project]);

	return (
		<ReckonerContext.Provider value={setText}>
			<ShownContext.Provider value={focus}>
				<div className="flex h-full flex-col">
					<HeadStrip onFind={() => setFinding(true)} onKeys={() => setKeys(true)} onHistory={() => setHistory(true)} />
					<div className="flex min-h-0 flex-1">
						<StationRail head={design.head} />
						<main
							className="relative flex min-w-0 flex-1 flex-col overflow-hidden"
							aria-label={station}
							data-head={design.head.version}
						>
							<h1 className="sr-only">
								{name}, {station}
							</h1>
							<NextLine station={station} />
							<Station name={station} />
						</main>
						<FindingsTray station={station} />
					</div>
					<ReckonerStrip text={text} />
				</div>
				<Finder open={finding} close={() => setFinding(false)} />
				<History open={history} close={() => setHistory(false)} />
				<KeySheet open={keys} close={() => setKeys(false)} />
			</ShownContext.Provider>
		</ReckonerContext.Provider>
	);
}

function Station({ name }: { name: StationName }) {
	switch (name) {
		case "brief":
			return <BriefStation />;
		case "parts":
			return <PartsStation />;
		case "power":
			return <PowerStation />;
		case "pins":
			return <PinsStation />;
		case "circuit":
			return <CircuitStation />;
		case "board":
			return <BoardStation />;
		case "stack":
			return <StackStation />;
		case "release":
			return <ReleaseStation />;
		case "build":
			return <BuildStation />;
		case "log":
			return <LogStation />;
	}
}
