import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Heading, Words } from "./fields";
import type { Part } from "./typed";

type Around = Schemas["Around"];

/** The application circuit of a part: small parts between its terminals and ground, by value or by formula. */
export function Surroundings({ part, put }: { part: Part; put: ((change: Partial<Part>) => void) | null }) {
	const names = Object.keys(part.terminals);
	if (!put) {
		if (part.around.length === 0) return null;
		return (
			<section aria-label="Around it" className="mt-4 text-[12px]">
				<Heading>Around it</Heading>
				{part.around.map((row) => (
					<div key={`${row.one} ${row.other} ${row.value}`} className="mt-1 leading-tight">
						<span className="figure">{row.value}</span> from {row.one} to {row.other}:{" "}
						<span className="text-ink-2">{row.why}</span>
					</div>
				))}
			</section>
		);
	}
	const change = (index: number, row: Partial<Around>) =>
		put({ around: part.around.map((one, at) => (at === index ? { ...one, ...row } : one)) });
	const first = names.find((name) => part.terminals[name]?.does === "supply") ?? names[0];
	return (
		<section aria-label="Around it" className="mt-4 text-[12px]">
			<Heading>Around it</Heading>
			<p className="py-1 text-ink-2">
				What its drawing wants beside it. A value, such as 100 nF or 4.7 kΩ; or = and a formula in Ω or F over its
				figures and rail_v, the volts that feed it.
			</p>
			{part.around.map((row, index) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a row that is being typed must not lose its field
				<div key={index} className="mt-1.5 border-b border-rule pb-1.5">
					<span className="flex items-center gap-1.5">
						<select
							aria-label={`What small part ${index + 1} is`}
							className="border border-line bg-card py-0.5"
							value={row.kind}
							onChange={(event) => change(index, { kind: event.target.value as Around["kind"] })}
						>
							<option>resistor</option>
							<option>capacitor</option>
						</select>
						<Words
							label={`Value of small part ${index + 1}`}
							hint="100 nF, or = 22000 * rail_v"
							wide="flex-1"
							value={row.value}
							set={(value) => change(index, { value })}
						/>
						<Button
							weight="quiet"
							aria-label={`out: small part ${index + 1}`}
							onClick={() => put({ around: part.around.filter((_, at) => at !== index) })}
						>
							out
						</Button>
					</span>
					<span className="mt-1 flex items-center gap-1.5">
						<End
							label={`One end of small part ${index + 1}`}
							value={row.one}
							names={names}
							set={(one) => change(index, { one })}
						/>
						to
						<End
							label={`Other end of small part ${index + 1}`}
							value={row.other}
							names={["ground", ...names.filter((name) => name !== "ground")]}
							set={(other) => change(index, { other })}
						/>
						<Words
							label={`Why small part ${index + 1}`}
							hint="why"
							wide="flex-1"
							value={row.why}
							set={(why) => change(index, { why })}
						/>
					</span>
				</div>
			))}
			{first && (
				<Button
					weight="quiet"
					className="mt-1"
					onClick={() =>
						put({
							around: [
								...part.around,
								{
									kind: "capacitor",
									value: "100 nF",
									one: first,
									other: "ground",
									why: "Decoupling, as its drawing asks",
								},
							],
						})
					}
				>
					One more small part
				</Button>
			)}
		</section>
	);
}

function End({
	label,
	value,
	names,
	set,
}: {
	label: string;
	value: string;
	names: string[];
	set: (name: string) => void;
}) {
	return (
		<select
			aria-label={label}
			className="max-w-[110px] border border-line bg-card py-0.5"
			value={value}
			onChange={(event) => set(event.target.value)}
		>
			{!names.includes(value) && <option>{value}</option>}
			{names.map((name) => (
				<option key={name}>{name}</option>
			))}
		</select>
	);
}
