import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { Heading } from "./fields";
import type { Supplier } from "./owned";
import { type Step, takeList } from "./takingList";

type Look = Schemas["ListLook"];

/** A price list read in: its columns said once and remembered, then line by line with its progress; all of it or nothing. */
export function PriceList({ supplier, taken }: { supplier: Supplier; taken: () => void }) {
	const [text, setText] = useState("");
	const [look, setLook] = useState<Look | null>(null);
	const [step, setStep] = useState<Step | null>(null);
	const [day, setDay] = useState(() => new Date().toISOString().slice(0, 10));
	const [problem, setProblem] = useState("");
	const [busy, setBusy] = useState(false);
	const read = async (file: File) => {
		const found = await file.text();
		setStep(null);
		try {
			setLook(await take(client.POST("/api/shelf/price-list/look", { body: { supplier: supplier.id, text: found } })));
			setText(found);
			setProblem("");
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setLook(null);
			setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	const send = async (leave_out: boolean) => {
		if (!look) return;
		setBusy(true);
		try {
			const { columns, decimal } = look;
			const last = await takeList({ supplier: supplier.id, text, columns, decimal, seen_on: day, leave_out }, setStep);
			if (last?.kept != null) {
				setLook(null);
				taken();
			}
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(`${error.sentence} ${error.wayOut}`);
		} finally {
			setBusy(false);
		}
	};
	const holds = (heading: string, field: string) => {
		if (!look) return;
		const { [heading]: _, ...others } = look.columns;
		setLook({ ...look, columns: field ? { ...others, [heading]: field } : others });
	};
	return (
		<section aria-label="Price list" className="mt-4">
			<Heading>Price list</Heading>
			<div className="mt-2 flex items-center gap-3">
				<label className="cursor-pointer border border-line bg-paper px-2.5 py-1 font-medium focus-within:outline-2 hover:border-ink-2">
					Read in a price list
					<input
						type="file"
						accept=".csv,.txt,.tsv"
						className="sr-only"
						data-testid="read-prices"
						onChange={(event) => {
							const file = event.target.files?.[0];
							if (file) void read(file);
							event.target.value = "";
						}}
					/>
				</label>
				<label className="flex items-center gap-1.5 text-[12px] text-ink-2">
					as seen on
					<input
						type="date"
						aria-label="Day on which the list was seen"
						className="border border-line bg-card px-1 text-ink"
						value={day}
						onChange={(event) => event.target.value && setDay(event.target.value)}
					/>
				</label>
				<span className="text-[12px] text-ink-2">any table of cells parted by commas, semicolons or tabs</span>
			</div>
			{problem && (
				<p role="alert" className="mt-2 text-stop">
					{problem}
				</p>
			)}
			{look && (
				<>
					<p className="mt-2 text-[12px]">
						{look.remembered ? "Its columns are as last time." : "What do its columns hold?"} Prices are written as{" "}
						<select
							aria-label="How prices are written"
							className="border border-line bg-card"
							value={look.decimal}
							onChange={(event) => setLook({ ...look, decimal: event.target.value as Look["decimal"] })}
						>
							<option value=".">0.034</option>
							<option value=",">0,034</option>
						</select>
						.
					</p>
					<div className="mt-1 overflow-x-auto">
						<table className="text-[12px]" data-testid="list-columns">
							<thead>
								<tr className="[&>th]:px-1 [&>th]:text-left [&>th]:font-normal">
									{look.headings.map((heading) => (
										<th key={heading}>
											<span className="block font-semibold">{heading}</span>
											<Column heading={heading} field={look.columns[heading] ?? ""} look={look} holds={holds} />
										</th>
									))}
								</tr>
							</thead>
							<tbody>
								{look.rows.map((cells, index) => (
									// biome-ignore lint/suspicious/noArrayIndexKey: rows of a file have no name
									<tr key={index} className="border-t border-rule">
										{look.headings.map((heading, at) => (
											<td key={heading} className="max-w-[180px] truncate px-1 py-0.5 text-ink-2">
												{cells[at] ?? ""}
											</td>
										))}
									</tr>
								))}
							</tbody>
						</table>
					</div>
					<div className="mt-2 flex items-center gap-2">
						<Button weight="main" data-testid="take-list" disabled={busy} onClick={() => void send(false)}>
							Take {look.lines} lines
						</Button>
						{step && step.faults.length > 0 && (
							<Button data-testid="leave-out" disabled={busy} onClick={() => void send(true)}>
								Take it without these lines
							</Button>
						)}
					</div>
				</>
			)}
			{step && <Progress step={step} />}
		</section>
	);
}

function Column({
	heading,
	field,
	look,
	holds,
}: {
	heading: string;
	field: string;
	look: Look;
	holds: (heading: string, field: string) => void;
}) {
	const price = /^price (\d*)$/.exec(field);
	return (
		<span className="flex items-center gap-1">
			<select
				aria-label={`What ${heading} holds`}
				className={`border bg-card ${field ? "border-ink-2" : "border-line text-ink-2"}`}
				value={price ? "price" : field}
				onChange={(event) => holds(heading, event.target.value === "price" ? "price 1" : event.target.value)}
			>
				<option value="">not read</option>
				{look.fields.map((name) => (
					<option key={name} value={name}>
						{name}
					</option>
				))}
				<option value="price">price from</option>
			</select>
			{price && (
				<input
					aria-label={`Pieces from which ${heading} counts`}
					className="figure w-[44px] border border-line bg-card px-1 text-right"
					inputMode="numeric"
					defaultValue={price[1]}
					onBlur={(event) => {
						const from = Math.max(1, Math.round(Number(event.target.value)) || 1);
						holds(heading, `price ${from}`);
					}}
				/>
			)}
		</span>
	);
}

/** How far a list is, and at last what was kept of it or what is wrong. */
function Progress({ step }: { step: Step }) {
	const share = Math.min(1, step.done / Math.max(1, step.of));
	return (
		<div className="mt-2 text-[12px]" data-testid="list-progress" data-kept={step.kept ?? ""}>
			<div
				className="h-1.5 w-[320px] bg-rule"
				role="progressbar"
				aria-label="Lines read"
				aria-valuenow={step.done}
				aria-valuemin={0}
				aria-valuemax={step.of}
			>
				<div className="h-full bg-patina" style={{ width: `${share * 100}%` }} />
			</div>
			<p className="mt-1">
				{step.kept != null ? (
					<span className="flex items-center gap-1.5">
						<Sign kind="clear" size={12} /> {step.kept} prices kept
						{step.faults.length > 0 && `, ${step.faults.length + step.more_faults} lines left out`}.
					</span>
				) : step.faults.length > 0 ? (
					<span className="flex items-center gap-1.5 text-stop">
						<Sign kind="stop" size={12} /> Nothing is kept: {step.faults.length + step.more_faults} lines cannot be
						read.
					</span>
				) : (
					`${step.done} of ${step.of} lines read`
				)}
			</p>
			{step.faults.map((fault) => (
				<p key={`${fault.line} ${fault.column}`}>
					line {fault.line}
					{fault.column && `, ${fault.column}`}: {fault.problem}. <span className="text-ink-2">{fault.way_out}</span>
				</p>
			))}
			{step.more_faults > 0 && <p className="text-ink-2">and {step.more_faults} more</p>}
		</div>
	);
}
