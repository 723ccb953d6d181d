import { type PointerEvent, useEffect, useRef, useState } from "react";
import { useDesign } from "../../document/useDesign";
import { BriefPanel } from "./BriefPanel";
import { type ControlKind, freeName, newControl } from "./controlKinds";
import { Device } from "./Device";
import { GroupBar } from "./GroupBar";
import { Tray } from "./Tray";

export type Hand = "none" | "small" | "medium" | "large";
type Carried = { kind: ControlKind; x: number; y: number; far: boolean };

/** The device from the front, the tray of controls above it, the tally beside it. */
export function BriefStation() {
	const { head, edit } = useDesign();
	const [selected, setSelected] = useState<string[]>([]);
	const [hand, setHand] = useState<Hand>("none");
	const [carried, setCarried] = useState<Carried | null>(null);
	const begun = useRef<{ x: number; y: number } | null>(null);
	const toMm = useRef<(x: number, y: number) => { x: number; y: number } | null>(() => null);
	const present = selected.filter((name) => head.things.some((t) => t.thing === name));

	const carry = (kind: ControlKind, event: PointerEvent) => {
		begun.current = { x: event.clientX, y: event.clientY };
		setCarried({ kind, x: event.clientX, y: event.clientY, far: false });
	};
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
			if (!carried.far || !place) return;
			const name = freeName(
				carried.kind,
				head.brief.controls.map((c) => c.name),
			);
			const at = { x: Math.round(place.x * 2) / 2, y: Math.round(place.y * 2) / 2 };
			void edit({ kind: "add-control", control: newControl(carried.kind, name, at.x, at.y) }).then(
				(done) => done && setSelected([`${carried.kind}:${name}`]),
			);
		};
		window.addEventListener("pointermove", move);
		window.addEventListener("pointerup", up);
		return () => {
			window.removeEventListener("pointermove", move);
			window.removeEventListener("pointerup", up);
		};
	}, [carried, edit, head.brief.controls]);

	return (
		<div className="flex min-h-0 flex-1">
			<div className="flex min-w-0 flex-1 flex-col">
				<Tray select={setSelected} carry={carry} />
				<GroupBar selected={present} select={setSelected} hand={hand} setHand={setHand} />
				<Device selected={present} select={setSelected} hand={hand} toMm={toMm} />
			</div>
			<BriefPanel selected={present} select={setSelected} />
			{carried?.far && (
				<div
					className="pointer-events-none fixed z-20 rounded border border-patina bg-card px-2 py-0.5 text-[12px]"
					style={{ left: carried.x + 10, top: carried.y + 8 }}
				>
					{carried.kind}
				</div>
			)}
		</div>
	);
}
