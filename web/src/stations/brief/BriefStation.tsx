import { useState } from "react";
import { useDesign } from "../../document/useDesign";
import { BriefPanel } from "./BriefPanel";
import { Device } from "./Device";
import { Tray } from "./Tray";

/** The device from the front, the tray of controls above it, the tally beside it. */
export function BriefStation() {
	const { head } = useDesign();
	const [selected, setSelected] = useState<string | null>(null);
	const present = selected && head.things.some((t) => t.thing === selected) ? selected : null;
	return (
		<div className="flex min-h-0 flex-1">
			<div className="flex min-w-0 flex-1 flex-col">
				<Tray select={setSelected} />
				<Device selected={present} select={setSelected} />
			</div>
			<BriefPanel selected={present} select={setSelected} />
		</div>
	);
}
