import type { PointerEvent } from "react";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import { type ControlKind, freeName, KINDS, newControl } from "./controlKinds";
import { Extras } from "./Extras";
import { freePlace } from "./freePlace";
import { KindMark } from "./KindMark";

/** What can be put on the device: press for a free place, or drag onto the drawing. */
export function Tray({
	select,
	carry,
}: {
	select: (things: string[]) => void;
	carry: (kind: ControlKind, event: PointerEvent) => void;
}) {
	const { head, edit, say } = useDesign();
	const add = async (kind: ControlKind) => {
		const room = KINDS.find((k) => k.kind === kind)?.room ?? { w: 10, h: 10 };
		const name = freeName(
			kind,
			head.brief.controls.map((c) => c.name),
		);
		const place = freePlace(head.outline_mm, head.things, room.w, room.h);
		if (!place)
			return say({
				kind: "refused",
				sentence: `There is no free place for another ${kind}.`,
				wayOut: "Move something aside, or enlarge the outline.",
			});
		const control = newControl(kind, name, place.x, place.y);
		if (await edit({ kind: "add-control", control })) select([`${kind}:${name}`]);
	};
	return (
		<div className="border-b border-rule px-3 py-1.5">
			<div className="flex flex-wrap items-center gap-1">
				{KINDS.map(({ kind, title, about }) => (
					<Button
						key={kind}
						title={`${title}: ${about}. Press for a free place, or drag it onto the device.`}
						data-testid={`add-${kind}`}
						className="touch-none !px-1.5"
						onPointerDown={(event) => carry(kind, event)}
						onClick={() => void add(kind)}
					>
						<KindMark kind={kind} />
						{title}
					</Button>
				))}
			</div>
			<Extras />
		</div>
	);
}
