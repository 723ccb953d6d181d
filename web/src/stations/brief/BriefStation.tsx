import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Edit } from "../../api/client";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import { BriefPanel } from "./BriefPanel";
import { Device } from "./Device";
import { freePlace } from "./freePlace";
import { GroupBar } from "./GroupBar";
import { freeName, type Kind } from "./kinds";
import type { Hand, Outlining } from "./looks";
import type { Picked } from "./outline";
import { TakeDrawing } from "./TakeDrawing";
import { Tray } from "./Tray";
import { useClipboard } from "./useClipboard";

type Carried = { kind: Kind; x: number; y: number; far: boolean };
type Spot = { x: number; y: number; far?: boolean };

/** The device from the front, the tray of things above it, the tally beside it. */
export function BriefStation() {
	const { head, edit, say } = useDesign();
	const [selected, setSelected] = useKept<string[]>("picked", []);
	const [hand, setHand] = useKept<Hand>("hand", "none");
	const [shown, setShown] = useKept("board", "");
	const [outlining, setOutlining] = useState<Outlining>("no");
	const [edge, setEdge] = useState<Picked | null>(null);
	const [carried, setCarried] = useState<Carried | null>(null);
	const begun = useRef<Spot | null>(null);
	const toMm = useRef<(x: number, y: number) => Spot | null>(() => null);
	const present = selected.filter((name) => head.things.some((t) => t.name === name));
	const board = head.boards.find((b) => b.name === shown) ?? head.boards[0];

	const pointer = useRef<Spot | null>(null);
	useClipboard(present, setSelected, board?.name ?? "", () =>
		pointer.current ? toMm.current(pointer.current.x, pointer.current.y) : null,
	);

	const put = async (kind: Kind, place: Spot | null) => {
		const name = freeName(
			kind.word,
			(head.brief.things ?? []).map((t) => t.name),
		);
		const spot = place && { x_mm: place.x, y_mm: place.y, far: place.far ?? false };
		const thing = { ...kind.usual, kind: kind.kind, name, board: board?.name, place: spot };
		const wanted = { kind: "add-thing", thing } as unknown as Extract<Edit, { kind: "add-thing" }>;
		if (await edit(wanted)) setSelected([name]);
	};
	const add = (kind: Kind) => {
		const here = head.things.filter((t) => t.board === board?.name);
		const standing = here.map((t) => ({ ...t, through: ["hole", "slot", "opening"].includes(t.mark) }));
		const sides = kind.mark === "cell" ? [true, false] : [false, true];
		const place = sides
			.map((far) => ({ far, spot: freePlace(board?.outline_mm ?? [], standing, kind, far) }))
			.find((found) => found.spot);
		if (!place?.spot)
			return say({
				kind: "refused",
				sentence: `There is no free place for ${kind.title}.`,
				wayOut: "Move something aside, or enlarge the outline.",
			});
		void put(kind, { ...place.spot, far: place.far });
	};
	const carry = (kind: Kind, event: PointerEvent) => {
		begun.current = { x: event.clientX, y: event.clientY };
		setCarried({ kind, x: event.clientX, y: event.clientY, far: false });
	};
	const dropped = useRef(put);
	dropped.current = put;
	useEffect(() => {
		if (!carried) return;
		const move = (event: globalThis.PointerEvent) => {
			const from = begun.current;
			const far = from !== null && Math.hypot(event.clientX - from.x, event.clientY - from.y) > 12;
			setCarried((now) => now && { ...now, x: event.clientX, y: event.clientY, far: now.far || far });
		};
		const up = (event: globalThis.PointerEvent) => {
			setCarried(null);
			const place = toMm.current(event.clientX, event.clientY);
			if (carried.far && place)
				void dropped.current(carried.kind, { x: Math.round(place.x * 2) / 2, y: Math.round(place.y * 2) / 2 });
		};
		window.addEventListener("pointermove", move);
		window.addEventListener("pointerup", up);
		return () => {
			window.removeEventListener("pointermove", move);
			window.removeEventListener("pointerup", up);
		};
	}, [carried]);

	if (!board) return null;
	return (
		<div
			className="flex min-h-0 flex-1 max-[800px]:flex-col max-[800px]:overflow-y-auto"
			onPointerMove={(event) => {
				pointer.current = { x: event.clientX, y: event.clientY };
			}}
		>
			<div className="flex min-w-0 flex-1 flex-col max-[800px]:min-h-[430px] max-[800px]:flex-none">
				<Tray add={add} carry={carry} />
				<GroupBar
					selected={present}
					select={setSelected}
					hand={hand}
					setHand={setHand}
					board={board.name}
					show={(name) => {
						setShown(name);
						setSelected([]);
						setEdge(null);
					}}
					outlining={outlining}
					outline={(how) => {
						setOutlining(how);
						setSelected([]);
						setEdge(null);
					}}
				/>
				{outlining === "drawing" ? (
					<TakeDrawing board={board.name} close={() => setOutlining("no")} />
				) : (
					<Device
						board={board}
						selected={present}
						select={setSelected}
						show={setShown}
						hand={hand}
						toMm={toMm}
						shaping={outlining === "shape" ? { picked: edge, pick: setEdge } : null}
					/>
				)}
			</div>
			<BriefPanel
				selected={present}
				select={setSelected}
				board={board}
				shaping={outlining === "shape" ? { picked: edge, pick: setEdge } : null}
			/>
			{carried?.far && (
				<div
					className="pointer-events-none fixed z-20 rounded border border-patina bg-card px-2 py-0.5 text-[12px]"
					style={{ left: carried.x + 10, top: carried.y + 8 }}
				>
					{carried.kind.title}
				</div>
			)}
		</div>
	);
}
