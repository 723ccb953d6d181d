import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { useAsking } from "../../document/useAsking";
import { useDesign } from "../../document/useDesign";

type Wanted = Schemas["CardWanted"];
const SORTS: NonNullable<Wanted["sort"]>[] = [
	"pin order",
	"missing part",
	"height",
	"solder",
	"polarity",
	"power",
	"firmware",
	"shell",
	"ordering",
	"other",
];
const EMPTY: Wanted = { title: "", about: "", found_how: "", patch: "", sort: "other", minutes: 0, cents: 0 };

/** A fault that was found: what, where on the board, how, the patch, what it cost. */
export function NewCard() {
	const { head } = useDesign();
	const { ask, problem } = useAsking(["project", head.project]);
	const [wanted, setWanted] = useState<Wanted>(EMPTY);
	const set = (change: Partial<Wanted>) => setWanted({ ...wanted, ...change });
	const number = (text: string, by: number) => Math.round(by * Math.max(0, Number(text.replace(",", ".")) || 0));
	const field = "border border-line bg-card px-1.5 py-0.5";
	return (
		<form
			aria-label="New card"
			className="mt-4 grid grid-cols-2 gap-2 border border-rule bg-card p-3 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				void ask(() =>
					take(
						client.POST("/api/projects/{project_id}/cards", {
							params: { path: { project_id: head.project } },
							body: wanted,
						}),
					),
				).then((done) => done && setWanted(EMPTY));
			}}
		>
			<p className="col-span-2 font-semibold">Note a fault</p>
			<input
				aria-label="What went wrong"
				placeholder="what went wrong"
				className={`${field} col-span-2`}
				value={wanted.title}
				onChange={(event) => set({ title: event.target.value })}
			/>
			<input
				aria-label="Where"
				placeholder="where: part:U1, net:SUPPLY, thing:screen"
				list="log-places"
				className={field}
				value={wanted.about}
				onChange={(event) => set({ about: event.target.value })}
			/>
			<datalist id="log-places">
				{head.things.map((thing) => (
					<option key={thing.name} value={`thing:${thing.name}`} />
				))}
			</datalist>
			<select
				aria-label="Sort"
				className={field}
				value={wanted.sort}
				onChange={(event) => set({ sort: event.target.value as Wanted["sort"] })}
			>
				{SORTS.map((sort) => (
					<option key={sort} value={sort}>
						{sort}
					</option>
				))}
			</select>
			<input
				aria-label="How it was found"
				placeholder="how it was found"
				className={field}
				value={wanted.found_how}
				onChange={(event) => set({ found_how: event.target.value })}
			/>
			<input
				aria-label="Patch"
				placeholder="patch: what was done about it"
				className={field}
				value={wanted.patch}
				onChange={(event) => set({ patch: event.target.value })}
			/>
			<span className="flex items-center gap-2">
				<input
					aria-label="Hours lost"
					placeholder="h"
					inputMode="decimal"
					className={`${field} figure w-[60px] text-right`}
					onChange={(event) => set({ minutes: number(event.target.value, 60) })}
				/>
				<input
					aria-label="Money lost"
					placeholder="€"
					inputMode="decimal"
					className={`${field} figure w-[70px] text-right`}
					onChange={(event) => set({ cents: number(event.target.value, 100) })}
				/>
			</span>
			<Button
				type="submit"
				weight="main"
				className="justify-self-end"
				disabled={wanted.title.trim().length < 3}
				data-testid="note-fault"
			>
				Note it
			</Button>
			{problem && <p className="col-span-2 text-stop">{problem}</p>}
		</form>
	);
}
