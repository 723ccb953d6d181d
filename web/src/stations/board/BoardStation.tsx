import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { client, Refusal, take } from "../../api/client";
import { BoardPicker } from "../../app/BoardPicker";
import { Coming, GhostBoard } from "../../app/Coming";
import { useShown } from "../../app/reckoner";
import { netsToPour, pouredBy } from "../../canvas/areas";
import type { Look } from "../../canvas/paintBoard";
import type { Place } from "../../canvas/viewport";
import type { Track } from "../../canvas/wiring";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Switch } from "../../design/Switch";
import { Toggle } from "../../design/Toggle";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { colourOf, litBy } from "../circuit/lit";
import { useSwitchedOn } from "../circuit/useSwitchedOn";
import { VoltsScale } from "../circuit/VoltsScale";
import { BoardCanvas, type Hand } from "./BoardCanvas";
import { NetActions } from "./NetActions";
import { PartActions } from "./PartActions";
import { PourPanel } from "./PourPanel";
import { Tries } from "./Tries";
import { useLaid } from "./useLaid";

const BoardSolid = lazy(() => import("./BoardSolid"));
type Shown = Look | "solid";
const LOOKS: [Shown, string, string][] = [
	["near", "Near", "seen from the front"],
	["far", "Far", "seen from behind"],
	["through", "See-through", "from the front, far side dashed"],
	["solid", "Solid", "with true heights; turn it with the mouse or the arrow keys"],
];

const PLANES: [Shown, string, string][] = [
	["plane near", "Ground", "the inner plane of ground, under the near side"],
	["plane far", "Supply", "the inner plane of the supply, above the far side"],
];

/** The board: near, far, see-through; place, route, pour; drag a part. */
export function BoardStation() {
	const { head, start, jobs, edit, say } = useDesign();
	const { shown } = useShown();
	const [wished, setLook] = useKept<Shown>("board side", "near");
	const [selected, setSelected] = useKept<string | null>("part", null);
	const [also, setAlso] = useState<string[]>([]);
	const [net, setNet] = useKept<string | null>("net", null);
	const [picked, setPicked] = useKept("board", "");
	const [hand, setHand] = useState<Hand>(null);
	const [giving, setGiving] = useKept("others give way", false);
	const [wantedNet, setWantedNet] = useState("");
	const [track, setTrack] = useState<Track | null>(null);
	const shownBoard = head.boards.find((b) => b.name === picked) ?? head.boards[0];
	const query = useQuery({
		queryKey: ["project", head.project, "board", shownBoard?.name, head.version],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/board", {
					params: { path: { project_id: head.project }, query: { board: shownBoard?.name ?? "" } },
				}),
			),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		for (const about of shown?.about ?? []) {
			if (about.startsWith("net:")) setNet(about.slice(4));
			if (about.startsWith("part:")) setSelected(about.slice(5));
		}
	}, [shown, setNet, setSelected]);
	const board = useLaid(query.isError ? undefined : query.data, jobs);
	const looks = [...LOOKS, ...(board?.planes.length ? PLANES : [])];
	const look = looks.some(([value]) => value === wished) ? wished : "near";
	const { state, set: setState, on } = useSwitchedOn();
	const volts = useMemo(() => (state !== null && on ? litBy(on) : null), [state, on]);
	const lit = useMemo(
		() => volts && new Map([...volts.nodes].map(([name, node]) => [name, colourOf(node.volts, volts.most)])),
		[volts],
	);
	const [beside, setBeside] = useKept<"tries" | "pour" | null>("beside the board", null);
	const showBeside = (what: "tries" | "pour") => {
		setBeside(beside === what ? null : what);
		if (hand === "area") setHand(null);
	};
	const nets = board ? netsToPour(board) : [];
	const areaNet = nets.includes(wantedNet) ? wantedNet : (nets[0] ?? "");
	const side = look === "far" ? "far" : "near";
	const pour = async (ring: Place[]) => {
		if (!board) return;
		setHand(null);
		if (await edit(pouredBy(board.board, areaNet, side, ring))) await start("pour");
	};
	// A track of a board that is no more is not picked any longer.
	// biome-ignore lint/correctness/useExhaustiveDependencies: only a new board lets go
	useEffect(() => setTrack(null), [board]);
	const part = board?.parts.find((p) => p.ref === selected);
	const busy = jobs.length > 0;
	const tidy = async (name: string, about: string) => {
		try {
			const found = await take(
				client.GET("/api/projects/{project_id}/board/tidied", {
					params: { path: { project_id: head.project }, query: { board: name, net: about } },
				}),
			);
			await edit({ kind: "lay-net", board: name, net: about, ...found });
		} catch (problem) {
			if (problem instanceof Refusal) say({ kind: "refused", sentence: problem.sentence, wayOut: problem.wayOut });
		}
	};
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
				<BoardPicker
					board={shownBoard?.name ?? ""}
					show={(name) => {
						setPicked(name);
						setSelected(null);
						setAlso([]);
						setNet(null);
					}}
				/>
				<Switch label="Side" mark="side" views={looks} shown={look} show={setLook} />
				<Toggle
					on={hand === "draw"}
					title="Draw tracks by hand: press a pad, then corners, then a pad"
					disabled={look === "solid"}
					onClick={() => setHand(hand === "draw" ? null : "draw")}
					data-testid="draw"
				>
					Draw
				</Toggle>
				<Toggle
					on={hand === "measure"}
					title="Press two places; the middles of pads, holes and parts are taken when they are near"
					disabled={look === "solid"}
					onClick={() => setHand(hand === "measure" ? null : "measure")}
					data-testid="measure"
				>
					Measure
				</Toggle>
				<Toggle
					on={beside === "pour"}
					title="Areas of other nets than ground, and tear-drops"
					disabled={!board}
					onClick={() => showBeside("pour")}
					data-testid="show-pour"
				>
					Areas
				</Toggle>
				<Toggle
					on={beside === "tries"}
					title="The board arranged in several ways, side by side"
					onClick={() => showBeside("tries")}
					data-testid="show-tries"
				>
					Tries
				</Toggle>
				<span className="flex-1" />
				<Button disabled={busy} onClick={() => void start("placement")} data-testid="place">
					Place
				</Button>
				<Button disabled={busy} onClick={() => void start("routing")} data-testid="route">
					Route
				</Button>
				<Button disabled={busy} onClick={() => void start("pour")} data-testid="pour">
					Pour
				</Button>
				<Button
					disabled={busy}
					onClick={() => void start("everything")}
					title="Pins, circuit, placing, routing and pour, as far as they are stale"
				>
					All anew
				</Button>
			</div>
			<div className="flex min-h-0 flex-1">
				<div className="flex min-w-0 flex-1 flex-col">
					{board && look === "solid" ? (
						<Suspense fallback={<p className="flex-1 p-6 text-ink-2">Building the board.</p>}>
							<BoardSolid board={board} selected={selected} select={setSelected} />
						</Suspense>
					) : board && look !== "solid" ? (
						<BoardCanvas
							board={board}
							look={look}
							net={net}
							pickNet={setNet}
							selected={selected}
							select={setSelected}
							also={also}
							pickAlso={setAlso}
							hand={hand}
							giving={giving}
							areaNet={areaNet}
							pour={(ring) => void pour(ring)}
							showSide={setLook}
							track={track}
							pickTrack={setTrack}
							lit={lit}
							mark={shown?.x != null && shown.y != null ? { x: shown.x, y: shown.y } : null}
						/>
					) : query.error instanceof Refusal ? (
						<Coming title={`The board ${shownBoard?.name ?? ""} will lie here`} until="pour">
							<GhostBoard board={shownBoard?.name ?? ""} />
						</Coming>
					) : (
						<p className="flex-1 p-6 text-ink-2">Reading the board.</p>
					)}
				</div>
				{beside === "tries" && shownBoard && <Tries board={shownBoard.name} outline={shownBoard.outline_mm} />}
				{beside === "pour" && board && (
					<PourPanel
						board={board}
						side={side}
						net={areaNet}
						pickNet={setWantedNet}
						drawing={hand === "area"}
						draw={(on) => setHand(on ? "area" : null)}
						pour={(ring) => void pour(ring)}
					/>
				)}
			</div>
			<div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule bg-card px-4 py-1.5 text-[12px]">
				{hand === "draw" ? (
					<label
						className="flex items-center gap-1.5 whitespace-nowrap"
						title="What the router laid is led about what you draw; pads and what is by hand stay"
					>
						<input
							type="checkbox"
							checked={giving}
							onChange={(event) => setGiving(event.target.checked)}
							data-testid="giving"
						/>
						Others give way
					</label>
				) : (
					!net && <span className="whitespace-nowrap text-ink-2">{looks.find(([value]) => value === look)?.[2]}</span>
				)}
				{(part || net ? [] : (board?.workings ?? [])).map((w) => (
					<span key={w.id}>
						<span className="text-ink-2">{w.title}</span> <Figure working={w} unit={false} />
					</span>
				))}
				<label
					className="flex items-center gap-1.5 whitespace-nowrap"
					title="Copper by its volts, in the state that is chosen at the Circuit"
				>
					<input
						type="checkbox"
						checked={state !== null}
						disabled={!board || head.stale.includes("circuit") || look === "solid"}
						onChange={() => setState(state === null ? "" : null)}
						data-testid="board-lit"
					/>
					Volts
				</label>
				{volts && <VoltsScale lit={volts} net={net} />}
				{volts && !part && !net && <span className="truncate text-ink-2">{on?.words}</span>}
				<span className="flex-1" />
				{part && board && also.length > 0 ? (
					<PartActions parts={[part, ...also.flatMap((ref) => board.parts.filter((p) => p.ref === ref))]} edit={edit} />
				) : part ? (
					<span className="flex items-center gap-2" data-testid="picked-part">
						<span className="font-medium">{part.ref}</span>{" "}
						<span className="max-w-[220px] truncate">{part.purpose}</span>
						<span className="figure">
							{part.x.toFixed(2)}, {part.y.toFixed(2)} mm, {part.turn}°
						</span>
						{part.by_hand && (
							<Button className="!py-0" onClick={() => void edit({ kind: "release-part", role: part.role })}>
								Let it be placed
							</Button>
						)}
					</span>
				) : (
					board &&
					net && (
						<NetActions
							board={board}
							net={net}
							track={track}
							edit={edit}
							tidy={() => void tidy(board.board, net)}
							route={busy ? null : () => void start("nets", { board: board.board, nets: [net] })}
						/>
					)
				)}
			</div>
		</div>
	);
}
