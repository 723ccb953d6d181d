import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { useState } from "react";
import type { Edit } from "../../api/client";
import type { Part } from "../../canvas/board";
import { Button } from "../../design/Button";
import { NumberField } from "../../design/NumberField";
import { rowSteps } from "./rowSteps";

/** Puts the picked parts in rows at even steps, in the order in which they were picked. */
export function RowsForm({ parts, edit }: { parts: Part[]; edit: (edit: Edit) => Promise<boolean> }) {
	const close = rowSteps(parts);
	const [columns, setColumns] = useState<number | null>(null);
	const [across, setAcross] = useState<number | null>(null);
	const [up, setUp] = useState<number | null>(null);
	const put = () =>
		edit({
			kind: "array-parts",
			roles: parts.map((p) => p.role),
			columns: columns ?? parts.length,
			step_x_mm: across ?? close.across,
			step_y_mm: up ?? close.up,
		});
	return (
		<Popover className="inline-block">
			<PopoverButton as={Button} className="!px-1.5 !py-0">
				In rows…
			</PopoverButton>
			<PopoverPanel
				anchor={{ to: "top start", gap: 8 }}
				className="z-20 w-64 border border-line bg-card p-3 text-[12px] shadow-md"
			>
				<div className="grid gap-1.5" data-testid="rows-form">
					<p className="text-ink-2">
						{parts[0]?.ref} stays where it is and gives the turn; the others follow in the order picked.
					</p>
					<NumberField label="In a row" unit="parts" value={columns ?? parts.length} set={setColumns} />
					<NumberField label="Step across" unit="mm" value={across ?? close.across} set={setAcross} />
					<NumberField label="Step up" unit="mm" value={up ?? close.up} set={setUp} />
					<Button className="justify-self-start" onClick={() => void put()}>
						Put in rows
					</Button>
				</div>
			</PopoverPanel>
		</Popover>
	);
}
