import { type FormEvent, useEffect, useState } from "react";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";
import { ControlForm } from "./ControlForm";
import { roleOf } from "./controlKinds";
import { DeviceForm } from "./DeviceForm";

/** The tally, the selected thing, and what the brief says besides places. */
export function BriefPanel({ selected, select }: { selected: string[]; select: (things: string[]) => void }) {
	const { head } = useDesign();
	const one = selected.length === 1 ? selected[0] : undefined;
	const control = head.brief.controls.find((c) => roleOf(c) === one);
	const sized = head.things.find((t) => t.thing === one);
	return (
		<section
			aria-label="Tally"
			className="flex w-[236px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-rule px-3 py-3"
		>
			<div>
				<h2 className="mb-2 font-semibold">Tally</h2>
				<div data-testid="tally">
					<Figures workings={head.tally} />
				</div>
			</div>
			{control && <ControlForm key={roleOf(control)} control={control} select={select} />}
			{!control && sized && (
				<div className="border-t border-rule pt-3" data-testid="selected">
					<h2 className="mb-1 font-semibold">{sized.name}</h2>
					<p className="figure text-right">
						{sized.x_mm.toFixed(2)}, {sized.y_mm.toFixed(2)} <span className="text-ink-2">mm</span>
					</p>
					<p className="mt-1 text-[12px] text-ink-2">Drag it, or nudge it with the arrow keys.</p>
				</div>
			)}
			{!one && <p className="text-[12px] text-ink-2">Press a control to read or change it.</p>}
			<DeviceForm />
			<Quantity />
			<p className="border-t border-rule pt-2 text-[12px] text-ink-2">{head.brief.purpose}</p>
		</section>
	);
}

function Quantity() {
	const { head, edit } = useDesign();
	const [value, setValue] = useState(String(head.brief.quantity));
	useEffect(() => setValue(String(head.brief.quantity)), [head.brief.quantity]);
	const send = (event: FormEvent) => {
		event.preventDefault();
		void edit({ kind: "set-quantity", quantity: Number(value) });
	};
	return (
		<form onSubmit={send} className="flex items-end gap-2">
			<label className="flex-1">
				<span className="block text-[12px] text-ink-2">To make</span>
				<input
					className="figure w-full border border-[#b9b09c] bg-card px-2 py-0.5 text-right"
					value={value}
					inputMode="numeric"
					onChange={(e) => setValue(e.target.value)}
				/>
			</label>
			<Button type="submit" disabled={value === String(head.brief.quantity)}>
				Set
			</Button>
		</form>
	);
}
