import { useState } from "react";
import type { Edit, Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

type Check = Schemas["LogView"]["checks"][number];
const FORMS: Record<Check["kind"], { title: string; fields: [string, string][] }> = {
	"pin-order": {
		title: "a pad of a part is on a net",
		fields: [
			["part", "part, as stick-magnetic-13"],
			["pad", "pad"],
			["net", "net begins with"],
		],
	},
	"part-on-net": {
		title: "parts of a kind hang on a net",
		fields: [
			["part_kind", "kind, as capacitor"],
			["net", "net"],
			["least", "at least"],
		],
	},
	height: {
		title: "nothing on a side is higher",
		fields: [
			["board", "board"],
			["most_mm", "mm at most"],
		],
	},
	words: { title: "the legend says", fields: [["text", "words"]] },
};
const NUMBERS = new Set(["least", "most_mm"]);

/** Checks of the project's own: what went wrong once does not go wrong again. */
export function Checks({ checks }: { checks: readonly Check[] }) {
	const { edit } = useDesign();
	const [kind, setKind] = useState<Check["kind"]>("words");
	const [values, setValues] = useState<Record<string, string>>({});
	const form = FORMS[kind];
	const ready = (values.title ?? "").trim() !== "" && form.fields.every(([name]) => (values[name] ?? "").trim() !== "");
	const add = () => {
		const plain = Object.fromEntries(
			["title", ...form.fields.map(([name]) => name)].map((name) => [
				name,
				NUMBERS.has(name) ? Number((values[name] ?? "").replace(",", ".")) : (values[name] ?? "").trim(),
			]),
		);
		void edit({ kind: "add-check", check: { kind, ...plain } } as Edit).then((done) => done && setValues({}));
	};
	return (
		<section aria-label="Checks of this project" className="mt-5">
			<h2 className="border-b border-ink pb-1 font-semibold">Checks of this project</h2>
			{checks.map((check) => (
				<p
					key={check.title}
					className="flex items-center gap-3 border-b border-rule py-1 text-[12px]"
					data-check={check.title}
				>
					<span className="flex-1">
						<span className="font-medium">{check.title}</span>: {FORMS[check.kind].title}
					</span>
					<Button weight="quiet" onClick={() => void edit({ kind: "drop-check", title: check.title })}>
						Take out
					</Button>
				</p>
			))}
			<form
				className="mt-2 flex flex-wrap items-center gap-1.5 text-[12px]"
				onSubmit={(event) => {
					event.preventDefault();
					if (ready) add();
				}}
			>
				<input
					aria-label="Name of the check"
					placeholder="never again: …"
					className="w-[170px] border border-line bg-card px-1.5 py-0.5"
					value={values.title ?? ""}
					onChange={(event) => setValues({ ...values, title: event.target.value })}
				/>
				<select
					aria-label="What is checked"
					className="border border-line bg-card px-1 py-0.5"
					value={kind}
					onChange={(event) => setKind(event.target.value as Check["kind"])}
				>
					{Object.entries(FORMS).map(([name, { title }]) => (
						<option key={name} value={name}>
							{title}
						</option>
					))}
				</select>
				{form.fields.map(([name, words]) => (
					<input
						key={name}
						aria-label={words}
						placeholder={words}
						className="w-[130px] border border-line bg-card px-1.5 py-0.5"
						value={values[name] ?? ""}
						onChange={(event) => setValues({ ...values, [name]: event.target.value })}
					/>
				))}
				<Button type="submit" disabled={!ready} data-testid="add-check">
					Check it from now on
				</Button>
			</form>
		</section>
	);
}
