import { Fragment, useRef, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Amount } from "./Amount";
import { DOES, type Does, type Part, padsIn, type Terminal, withEach, withPins } from "./typed";

type Put = ((change: Partial<Part>) => void) | null;

/** The terminals of a part by function, with their pads and what each does; pasted from a data sheet's table or typed. */
export function Terminals({
	part,
	put,
	asked,
	loose,
}: {
	part: Part;
	put: Put;
	asked: readonly string[];
	loose: readonly string[];
}) {
	const [pasting, setPasting] = useState(false);
	const paste = useRef<HTMLButtonElement>(null);
	const [opened, setOpened] = useState("");
	const rows = Object.entries(part.terminals);
	const absent = asked.filter((name) => !(name in part.terminals));
	const change = (name: string, to: string, terminal: Terminal | null) =>
		put?.({
			terminals: Object.fromEntries(
				rows.flatMap(([key, old]) => (key !== name ? [[key, old]] : terminal ? [[to, terminal]] : [])),
			),
		});
	const add = (name: string) =>
		put?.({ terminals: { ...part.terminals, [name]: { pads: ["?"], does: "passive", joined: false, open: "" } } });
	return (
		<section aria-label="Terminals">
			<div className="flex items-baseline justify-between border-b border-ink pb-1">
				<h3 className="font-semibold">
					Terminals <span className="figure font-normal text-ink-2">{rows.length}</span>
				</h3>
				{put && (
					<Button weight="quiet" ref={paste} data-testid="paste-pins" onClick={() => setPasting(!pasting)}>
						Paste a pin table
					</Button>
				)}
			</div>
			{pasting && put && (
				<Pasting
					kind={part.kind}
					took={(rows) => {
						put({ terminals: withPins(part, rows).terminals });
						setPasting(false);
						paste.current?.focus();
					}}
				/>
			)}
			<table className="w-full text-[12px]">
				<thead>
					<tr className="text-left text-ink-2 [&>th]:py-1 [&>th]:font-normal">
						<th className="w-[74px]">pads</th>
						<th>function</th>
						<th>does</th>
						<th>
							<span className="sr-only">more</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{rows.map(([name, terminal], index) => (
						// biome-ignore lint/suspicious/noArrayIndexKey: a name that is being typed must not lose its field
						<Fragment key={index}>
							<tr className="border-t border-rule [&>td]:py-0.5" data-terminal={name}>
								{put ? (
									<>
										<td>
											<Cell
												label={`Pads of ${name}`}
												value={terminal.pads.join(" ")}
												wide="w-[66px] figure"
												set={(text) => change(name, name, { ...terminal, pads: padsIn(text) })}
											/>
										</td>
										<td>
											<Cell
												label={`Function of ${terminal.pads.join(" ")}`}
												value={name}
												wide="w-full"
												set={(text) => text && !(text in part.terminals) && change(name, text, terminal)}
											/>
										</td>
										<td className="pl-2">
											<select
												aria-label={`What ${name} does`}
												className="w-full border border-line bg-card py-0.5"
												value={terminal.does}
												onChange={(event) => change(name, name, { ...terminal, does: event.target.value as Does })}
											>
												{DOES.map(([value, words]) => (
													<option key={value} value={value}>
														{words}
													</option>
												))}
											</select>
										</td>
										<td className="pl-2 text-right whitespace-nowrap">
											<Button
												weight="quiet"
												aria-label={`more of ${name}`}
												aria-expanded={opened === name}
												onClick={() => setOpened(opened === name ? "" : name)}
											>
												<span
													className={
														terminal.open || terminal.joined || terminal.most_v != null ? "font-bold" : "font-normal"
													}
												>
													more
												</span>
											</Button>
											<Button weight="quiet" aria-label={`Take ${name} out`} onClick={() => change(name, name, null)}>
												out
											</Button>
										</td>
									</>
								) : (
									<>
										<td className="figure">{terminal.pads.join(" ")}</td>
										<td>{name}</td>
										<td className="text-ink-2">
											{DOES.find(([value]) => value === terminal.does)?.[1]}
											{terminal.joined && ", joined inside"}
											{terminal.most_v != null && `, stands ${terminal.most_v} V`}
										</td>
										<td className="text-ink-2" title={terminal.open}>
											{terminal.open && "may stay open"}
										</td>
									</>
								)}
							</tr>
							{put && opened === name && (
								<tr className="bg-card" data-more={name}>
									<td />
									<td colSpan={3} className="py-1">
										<span className="flex items-center gap-2">
											<span className="text-ink-2">may stay open, because</span>
											<Cell
												label={`Why ${name} may stay open`}
												value={terminal.open}
												wide="flex-1"
												set={(open) => change(name, name, { ...terminal, open })}
											/>
										</span>
										<label className="mt-1 flex items-center gap-2">
											<input
												type="checkbox"
												checked={terminal.joined}
												onChange={(event) => change(name, name, { ...terminal, joined: event.target.checked })}
											/>
											its own metal joins these pads: one of them is enough
										</label>
										<span className="mt-1 flex items-center gap-2">
											<span className="text-ink-2">stands against ground at most</span>
											<Amount
												label={`Most volts at ${name}`}
												value={terminal.most_v}
												unit="V"
												set={(most_v) => change(name, name, { ...terminal, most_v })}
											/>
										</span>
									</td>
								</tr>
							)}
						</Fragment>
					))}
				</tbody>
			</table>
			{put && (
				<p className="mt-2 flex flex-wrap items-center gap-1.5 text-[12px]">
					{absent.map((name) => (
						<Button key={name} className="!py-0.5" onClick={() => add(name)}>
							{name}
						</Button>
					))}
					{absent.length > 0 && <span className="text-ink-2">are asked for and not there yet.</span>}
					<Button weight="quiet" onClick={() => add(`pin ${rows.length + 1}`)}>
						One more
					</Button>
					{loose.length > 0 && (
						<Button weight="quiet" data-testid="each-pad" onClick={() => put({ terminals: withEach(part, loose) })}>
							One for each pad without
						</Button>
					)}
				</p>
			)}
		</section>
	);
}

/** A cell that is sent when it is left. */
function Cell({
	label,
	value,
	wide,
	set,
}: {
	label: string;
	value: string;
	wide: string;
	set: (text: string) => void;
}) {
	return (
		<input
			key={value}
			aria-label={label}
			defaultValue={value}
			className={`border border-line bg-card px-1 py-0.5 ${wide}`}
			onBlur={(event) => event.target.value.trim() !== value && set(event.target.value.trim())}
			onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
		/>
	);
}

function Pasting({ kind, took }: { kind: string; took: (rows: Schemas["PinRow"][]) => void }) {
	const [text, setText] = useState("");
	const [read, setRead] = useState<Schemas["PinTableRead"] | null>(null);
	const [problem, setProblem] = useState("");
	const look = async (now: string) => {
		setText(now);
		try {
			setRead(now.trim() ? await take(client.POST("/api/shelf/pin-table", { body: { text: now, kind } })) : null);
			setProblem("");
		} catch (error) {
			if (error instanceof Refusal) setProblem(error.sentence);
		}
	};
	return (
		<div className="my-2 border border-line bg-card p-2 text-[12px]">
			<label className="block text-ink-2">
				Copy the pin table out of the data sheet: pin number, name, and what it is; a row a pin.
				<textarea
					aria-label="Pin table"
					rows={7}
					className="figure mt-1 block w-full border border-line bg-paper p-1 text-ink"
					placeholder={"1\tVIN\tPower\n2, 4\tGND\tGround\n3\tEN\tInput"}
					value={text}
					onChange={(event) => void look(event.target.value)}
				/>
			</label>
			{problem && <p className="text-stop">{problem}</p>}
			{read && (
				<>
					<p className="mt-1">
						<span className="figure">{read.rows.length}</span> terminals:{" "}
						{read.rows.map((row) => `${row.name} (${row.pads.join(" ")}, ${row.does})`).join("; ")}
					</p>
					{read.unread.map((row) => (
						<p key={row.line} className="text-look">
							line {row.line} is left out, {row.why}: {row.text}
						</p>
					))}
					<Button className="mt-1" data-testid="take-pins" disabled={!read.rows.length} onClick={() => took(read.rows)}>
						Take these terminals
					</Button>
				</>
			)}
		</div>
	);
}
