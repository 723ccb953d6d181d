import { useState } from "react";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import { padsIn } from "./padsIn";
import type { View } from "./picked";

/** What was changed beside the recipes, each with the way back, and a part to add. */
export function HandChanges({ view }: { view: View }) {
	const { edit } = useDesign();
	const [adding, setAdding] = useState(false);
	return (
		<section aria-label="Changed by hand" className="border-t border-ink p-2" data-testid="by-hand">
			<div className="flex items-baseline justify-between">
				<h2 className="font-semibold">By hand</h2>
				<Button weight="quiet" onClick={() => setAdding(!adding)} aria-expanded={adding}>
					{adding ? "Not now" : "Add a part"}
				</Button>
			</div>
			{adding && <AddPart view={view} done={() => setAdding(false)} />}
			<ul className="max-h-[150px] overflow-y-auto text-[12px]">
				{view.changes.map((row, index) => (
					<li key={row.words} className="flex items-baseline justify-between gap-2 border-t border-rule py-0.5">
						<span className="min-w-0 break-words">{row.words}</span>
						<Button
							weight="quiet"
							aria-label={`Take back: ${row.words}`}
							onClick={() => void edit({ kind: "drop-circuit-change", index })}
						>
							Take back
						</Button>
					</li>
				))}
			</ul>
			{view.changes.length === 0 && !adding && (
				<p className="text-[12px] text-ink-2">
					Nothing. Press a part or a net to change it; recipes keep your changes.
				</p>
			)}
		</section>
	);
}

/** A part of the catalogue with the nets of its pads: `1 SUPPLY, 2 GROUND`. */
function AddPart({ view, done }: { view: View; done: () => void }) {
	const { edit, head } = useDesign();
	const [form, setForm] = useState({ role: "", part: "", value: "", pads: "", board: head.boards[0]?.name ?? "" });
	const set = (field: keyof typeof form) => (event: { target: { value: string } }) =>
		setForm({ ...form, [field]: event.target.value });
	const pads = padsIn(form.pads);
	const ready = /^[a-z][a-z0-9 -]*$/.test(form.role) && view.parts.some(([id]) => id === form.part) && pads !== null;
	const add = async () => {
		const { role, part, value, board } = form;
		const change = { what: "add part" as const, role, part, value, board, pads: pads ?? {} };
		if (await edit({ kind: "change-circuit", change })) done();
	};
	const look = "w-full border border-line bg-card px-1.5 py-0.5";
	return (
		<form
			className="mb-2 grid gap-1 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				void add();
			}}
		>
			<input
				aria-label="Name of the part"
				placeholder="name, such as test load"
				className={look}
				maxLength={40}
				value={form.role}
				onChange={set("role")}
			/>
			<input
				aria-label="Part of the catalogue"
				placeholder="part"
				list="part-ids"
				className={look}
				value={form.part}
				onChange={set("part")}
			/>
			<input
				aria-label="Value"
				placeholder="value, such as 10 kΩ"
				className={look}
				maxLength={24}
				value={form.value}
				onChange={set("value")}
			/>
			<input
				aria-label="Pads and nets"
				placeholder="1 SUPPLY, 2 GROUND"
				className={`figure ${look}`}
				value={form.pads}
				onChange={set("pads")}
			/>
			{head.boards.length > 1 && (
				<select aria-label="Board" className={look} value={form.board} onChange={set("board")}>
					{head.boards.map((board) => (
						<option key={board.name}>{board.name}</option>
					))}
				</select>
			)}
			<Button type="submit" className="justify-self-start" disabled={!ready}>
				Add it
			</Button>
			<datalist id="part-ids">
				{view.parts.map(([id, words]) => (
					<option key={id} value={id}>
						{words}
					</option>
				))}
			</datalist>
		</form>
	);
}
