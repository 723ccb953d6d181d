import { type FormEvent, useEffect, useState } from "react";
import { Button } from "../../design/Button";
import { Figures } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";

/** The tally, the selected thing, and what the brief says besides places. */
export function BriefPanel({ selected, select }: { selected: string | null; select: (thing: string | null) => void }) {
	const { head, edit } = useDesign();
	return (
		<section
			aria-label="Tally"
			className="flex w-[232px] shrink-0 flex-col gap-4 overflow-y-auto border-l border-rule px-4 py-3"
		>
			<div>
				<h2 className="mb-2 font-semibold">Tally</h2>
				<div data-testid="tally">
					<Figures workings={head.tally} />
				</div>
			</div>
			{selected ? (
				<Selected thing={selected} select={select} />
			) : (
				<p className="text-ink-2">Press a control to read or change it.</p>
			)}
			<fieldset className="border-t border-rule pt-3">
				<legend className="sr-only">How buttons are read</legend>
				<p className="mb-1 font-semibold">Buttons pull</p>
				{(
					[
						["internal-pull-up", "to ground, pull-up in the chip"],
						["pull-down-resistors", "to the rail, resistors on the board"],
					] as const
				).map(([value, words]) => (
					<label key={value} className="flex gap-2 py-0.5">
						<input
							type="radio"
							name="reading"
							className="accent-patina"
							checked={(head.brief.button_reading ?? "internal-pull-up") === value}
							onChange={() => void edit({ kind: "set-reading", reading: value })}
						/>
						{words}
					</label>
				))}
			</fieldset>
			<p className="border-t border-rule pt-3 text-[12px] text-ink-2">{head.brief.purpose}</p>
			<Quantity />
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
				<span className="block text-ink-2">To make</span>
				<input
					className="figure w-full border border-[#b9b09c] bg-card px-2 py-1 text-right"
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

function Selected({ thing, select }: { thing: string; select: (thing: string | null) => void }) {
	const { head, edit } = useDesign();
	const control = head.brief.controls.find((c) => `button:${c.name}` === thing);
	const sized = head.things.find((t) => t.thing === thing);
	const [name, setName] = useState(control?.name ?? "");
	useEffect(() => setName(control?.name ?? ""), [control?.name]);
	const place = control ?? sized;
	if (!place || !sized) return null;
	const rename = async (event: FormEvent) => {
		event.preventDefault();
		if (control && (await edit({ kind: "rename-button", name: control.name, new_name: name })))
			select(`button:${name}`);
	};
	return (
		<div className="border-t border-rule pt-3" data-testid="selected">
			<h2 className="mb-2 font-semibold">{control ? "Button" : sized.name}</h2>
			{control && (
				<form onSubmit={(event) => void rename(event)} className="mb-2 flex gap-2">
					<input
						aria-label="Name"
						className="w-full border border-[#b9b09c] bg-card px-2 py-1"
						value={name}
						maxLength={24}
						onChange={(e) => setName(e.target.value)}
					/>
					<Button type="submit" disabled={name === control.name}>
						Set
					</Button>
				</form>
			)}
			<p className="figure text-right">
				{place.x_mm.toFixed(2)} <span className="text-ink-2">mm from the left</span>
			</p>
			<p className="figure text-right">
				{place.y_mm.toFixed(2)} <span className="text-ink-2">mm from below</span>
			</p>
			<p className="mt-1 text-[12px] text-ink-2">Drag it, or nudge it with the arrow keys.</p>
			{control && (
				<Button className="mt-2" onClick={() => void edit({ kind: "remove-button", name: control.name })}>
					Remove this button
				</Button>
			)}
		</div>
	);
}
