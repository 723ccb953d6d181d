import { useState } from "react";
import { Amount } from "./Amount";
import { BEGINNINGS, dimensionWords, type Part, padLines, padsOf } from "./typed";

type Body = Part["body"];
const FAMILIES: Record<Body["family"], string> = {
	"two-ends": "two ends",
	"gull-wings": "leads bent out",
	"no-leads": "pads under its edges",
	rows: "two rows",
	drawn: "pads as drawn",
};
const HIDDEN = [
	"family",
	"prefix",
	"name",
	"inch_code",
	"metric_code",
	"positions",
	"pads",
	"pegs_mm",
	"first_pin_mark",
	"touched_mm",
	"body_middle_mm",
];

/** The package: its family and its dimensions as the drawing gives them, or its pads one by one. */
export function BodyFields({ part, put }: { part: Part; put: ((change: Partial<Part>) => void) | null }) {
	const body = part.body;
	if (!put)
		return (
			<section aria-label="Package" className="mt-4 text-[12px]">
				<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">Package</h3>
				<p className="mt-1 text-ink-2">
					{FAMILIES[body.family]}; {"name" in body ? body.name : body.prefix}
				</p>
			</section>
		);
	const set = (change: Record<string, unknown>) => put({ body: { ...body, ...change } as Body });
	return (
		<section aria-label="Package" className="mt-4 text-[12px]">
			<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">Package</h3>
			<select
				aria-label="Package family"
				className="mt-2 w-full border border-line bg-card px-1 py-0.5"
				value={body.family}
				onChange={(event) => put({ body: BEGINNINGS[event.target.value as Body["family"]] })}
			>
				{Object.entries(FAMILIES).map(([value, words]) => (
					<option key={value} value={value}>
						{words}
					</option>
				))}
			</select>
			<div key={body.family}>
				<Row words="name of the package">
					<input
						aria-label="Name of the package"
						className="w-[150px] border border-line bg-card px-1 py-0.5"
						value={"name" in body ? body.name : body.prefix}
						onChange={(event) => set({ ["name" in body ? "name" : "prefix"]: event.target.value })}
					/>
				</Row>
				{Object.entries(body)
					.filter(([field]) => !HIDDEN.includes(field))
					.map(([field, value]) =>
						Array.isArray(value) ? (
							<Row key={field} words={`${dimensionWords(field)}, ${PAIRS[field] ?? "least and most"}`}>
								{(value as number[]).map((one, index) => (
									<Amount
										// biome-ignore lint/suspicious/noArrayIndexKey: the two ends of a span
										key={index}
										label={`${dimensionWords(field)} ${index + 1}`}
										value={one}
										unit=""
										set={(n) => set({ [field]: (value as number[]).map((old, i) => (i === index ? (n ?? old) : old)) })}
									/>
								))}
							</Row>
						) : (
							<Row key={field} words={dimensionWords(field)}>
								<Amount
									label={dimensionWords(field)}
									value={value as number}
									unit={field.endsWith("_mm") ? "mm" : ""}
									set={(n) => n !== null && set({ [field]: n })}
								/>
							</Row>
						),
					)}
				{body.family === "drawn" && <Pads body={body} set={set} />}
			</div>
		</section>
	);
}

const PAIRS: Record<string, string> = { body_mm: "width and height", pad_mm: "width and height" };

function Row({ words, children }: { words: string; children: React.ReactNode }) {
	return (
		<div className="mt-1 flex items-center justify-between gap-2">
			<span className="text-ink-2">{words}</span>
			<span className="flex gap-1">{children}</span>
		</div>
	);
}

function Pads({
	body,
	set,
}: {
	body: Extract<Body, { family: "drawn" }>;
	set: (change: Record<string, unknown>) => void;
}) {
	const [text, setText] = useState(padLines(body.pads));
	const { bad } = padsOf(text, body.pads);
	return (
		<label className="mt-2 block text-ink-2">
			Pads in mm about the middle, y up: number, x, y, width, height, hole
			<textarea
				aria-label="Pads"
				rows={Math.min(12, body.pads.length + 2)}
				className="figure mt-1 block w-full border border-line bg-card p-1 text-ink"
				value={text}
				onChange={(event) => {
					setText(event.target.value);
					const read = padsOf(event.target.value, body.pads);
					if (read.pads.length && !read.bad.length) set({ pads: read.pads });
				}}
			/>
			{bad.length > 0 && <span className="text-stop">line {bad.join(", ")} wants a number and four sizes</span>}
		</label>
	);
}
