import { useEffect, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Amount } from "./Amount";
import { type House, priced, type Quote } from "./owned";

const BLANK: Quote = {
	quantity: 5,
	width_mm: 100,
	height_mm: 60,
	copper_layers: 2,
	finish: "",
	colour: "",
	thickness_um: 1600,
	cents: 0,
	words: "",
};
type Row = { key: number; quote: Quote };

/** Quotes that a house sent, typed in; from three on its prices are worked out of them, and how far they miss is shown. */
export function QuotesSeen({ house, put }: { house: House; put: (house: House) => void }) {
	const [rows, setRows] = useState<Row[]>(() =>
		(house.quotes.length ? house.quotes : [BLANK, BLANK, BLANK]).map((quote, key) => ({ key, quote })),
	);
	const [found, setFound] = useState<Schemas["LearntView"] | null>(null);
	const [problem, setProblem] = useState("");
	const quotes = rows.map((row) => row.quote).filter((quote) => quote.cents > 0);
	const asked = JSON.stringify(quotes);
	useEffect(() => {
		const typed = JSON.parse(asked) as Quote[];
		let late = false;
		const timer = setTimeout(async () => {
			if (typed.length < 3) return setFound(null);
			try {
				const answer = await take(client.POST("/api/shelf/house/learn", { body: { quotes: typed } }));
				if (late) return;
				setFound(answer);
				setProblem("");
			} catch (error) {
				if (!(error instanceof Refusal)) throw error;
				setFound(null);
				setProblem(`${error.sentence} ${error.wayOut}`);
			}
		}, 200);
		return () => {
			late = true;
			clearTimeout(timer);
		};
	}, [asked]);
	const set = (key: number, change: Partial<Quote>) =>
		setRows(rows.map((row) => (row.key === key ? { key, quote: { ...row.quote, ...change } } : row)));
	const last = rows[rows.length - 1];
	return (
		<section aria-label="Quotes">
			<table className="w-full text-[12px]" data-testid="quotes-seen">
				<thead>
					<tr className="text-left text-ink-2 [&>th]:py-1 [&>th]:font-normal">
						<th>boards</th>
						<th>wide, high mm</th>
						<th>layers</th>
						<th>finish</th>
						<th>colour</th>
						<th>thick µm</th>
						<th>price, without shipping</th>
						<th>missed by</th>
						<th>
							<span className="sr-only">out</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{rows.map(({ key, quote }, index) => {
						const at = quotes.indexOf(quote);
						const miss = found && at >= 0 ? found.learnt.misses[at] : undefined;
						return (
							<tr key={key} className="border-t border-rule [&>td]:py-0.5 [&>td]:pr-1" data-quote={index + 1}>
								<td>
									<Cell
										label={`Boards of quote ${index + 1}`}
										value={quote.quantity}
										set={(n) => set(key, { quantity: n })}
									/>
								</td>
								<td className="whitespace-nowrap">
									<Cell
										label={`Width of quote ${index + 1}`}
										value={quote.width_mm}
										set={(n) => set(key, { width_mm: n })}
									/>{" "}
									<Cell
										label={`Height of quote ${index + 1}`}
										value={quote.height_mm}
										set={(n) => set(key, { height_mm: n })}
									/>
								</td>
								<td>
									<select
										aria-label={`Layers of quote ${index + 1}`}
										className="border border-line bg-card py-0.5"
										value={quote.copper_layers}
										onChange={(event) => set(key, { copper_layers: Number(event.target.value) })}
									>
										<option value={2}>2</option>
										<option value={4}>4</option>
									</select>
								</td>
								<td>
									<input
										aria-label={`Finish of quote ${index + 1}`}
										className="w-[92px] border border-line bg-card px-1 py-0.5"
										value={quote.finish}
										onChange={(event) => set(key, { finish: event.target.value })}
									/>
								</td>
								<td>
									<input
										aria-label={`Colour of quote ${index + 1}`}
										className="w-[64px] border border-line bg-card px-1 py-0.5"
										value={quote.colour}
										onChange={(event) => set(key, { colour: event.target.value })}
									/>
								</td>
								<td>
									<Cell
										label={`Thickness of quote ${index + 1}`}
										value={quote.thickness_um}
										set={(n) => set(key, { thickness_um: Math.round(n) })}
									/>
								</td>
								<td>
									<Amount
										label={`Price of quote ${index + 1}`}
										value={quote.cents ? quote.cents / 100 : null}
										unit={house.currency}
										set={(n) => set(key, { cents: Math.round((n ?? 0) * 100) })}
									/>
								</td>
								<td className="figure text-right">
									{miss === undefined ? "" : (Math.round(miss) / 100).toFixed(2).replace(/^-0\.00$/, "0.00")}
								</td>
								<td>
									<Button
										weight="quiet"
										aria-label={`out: quote ${index + 1}`}
										onClick={() => setRows(rows.filter((row) => row.key !== key))}
									>
										out
									</Button>
								</td>
							</tr>
						);
					})}
				</tbody>
			</table>
			<Button
				weight="quiet"
				data-testid="more-quotes"
				onClick={() =>
					setRows([...rows, { key: (last?.key ?? 0) + 1, quote: { ...(last?.quote ?? BLANK), cents: 0 } }])
				}
			>
				One more quote
			</Button>
			{quotes.length < 3 && (
				<p className="text-[12px] text-ink-2">
					Three quotes of different sizes and quantities are enough to begin; five tell how far a next one is missed.
				</p>
			)}
			{problem && quotes.length >= 3 && <p className="text-[12px] text-stop">{problem}</p>}
			{found && <Told found={found} quotes={quotes} house={house} put={put} />}
		</section>
	);
}

function Told({
	found,
	quotes,
	house,
	put,
}: {
	found: Schemas["LearntView"];
	quotes: Quote[];
	house: House;
	put: (house: House) => void;
}) {
	const { learnt, words } = found;
	const money = (cents: number) => `${(cents / 100).toFixed(2)} ${house.currency}`;
	return (
		<div className="mt-2 flex flex-wrap items-start gap-6" data-testid="learnt">
			<Fit quotes={quotes} misses={learnt.misses} currency={house.currency} />
			<div className="min-w-[250px] flex-1 text-[12px]">
				<table className="w-full">
					<tbody>
						{Object.entries(learnt.prices).map(([name, cents]) => (
							<tr key={name} className="border-b border-rule" data-price={name}>
								<td className="py-0.5 text-ink-2">{words[name] ?? name}</td>
								<td className="figure text-right">{money(cents)}</td>
							</tr>
						))}
					</tbody>
				</table>
				<p className="mt-1" data-testid="within">
					A next quote of this kind is missed by about <span className="figure">{money(learnt.within_cents)}</span>{" "}
					<span className="text-ink-2">(the largest miss where each quote is worked out from the others)</span>.
				</p>
				{learnt.untold.map((line) => (
					<p key={line} className="mt-1 text-look">
						Not told: {line}.
					</p>
				))}
				<Button className="mt-2" data-testid="take-learnt" onClick={() => put(priced(house, learnt, quotes))}>
					Take these prices
				</Button>
				<p className="mt-1 text-ink-2">Non-negative least squares; no price is below nothing.</p>
			</div>
		</div>
	);
}

/** What each quote asked against what the learnt prices come to; on the line is met. */
function Fit({ quotes, misses, currency }: { quotes: Quote[]; misses: number[]; currency: string }) {
	const most = Math.max(1, ...quotes.map((quote) => quote.cents)) * 1.08;
	const [side, pad] = [190, 34];
	const at = (cents: number) => (cents / most) * side;
	return (
		<svg
			viewBox={`${-pad} ${-8} ${side + pad + 10} ${side + 34}`}
			className="w-[250px]"
			role="img"
			aria-label="What was asked against what is worked out"
		>
			<path d={`M0 0V${side}H${side}`} fill="none" stroke="var(--color-ink)" />
			<path d={`M0 ${side}L${side} 0`} stroke="var(--color-rule)" strokeWidth={1.5} />
			{quotes.map((quote, index) => {
				const worked = quote.cents - (misses[index] ?? 0);
				return (
					// biome-ignore lint/suspicious/noArrayIndexKey: quotes have no name
					<g key={index}>
						<line
							x1={at(quote.cents)}
							x2={at(quote.cents)}
							y1={side - at(quote.cents)}
							y2={side - at(worked)}
							stroke="var(--color-stop)"
						/>
						<circle cx={at(quote.cents)} cy={side - at(worked)} r={4.5} fill="var(--color-copper)" />
					</g>
				);
			})}
			<text x={side / 2} y={side + 22} textAnchor="middle" fontSize={12} fill="var(--color-ink-2)">
				asked, up to {(most / 108).toFixed(0)} {currency}
			</text>
			<text
				x={-14}
				y={side / 2}
				textAnchor="middle"
				fontSize={12}
				fill="var(--color-ink-2)"
				transform={`rotate(-90 -14 ${side / 2})`}
			>
				worked out
			</text>
		</svg>
	);
}

function Cell({ label, value, set }: { label: string; value: number; set: (value: number) => void }) {
	return (
		<input
			aria-label={label}
			inputMode="decimal"
			className="figure w-[56px] border border-line bg-card px-1 py-0.5 text-right"
			defaultValue={value}
			onChange={(event) => {
				const typed = Number(event.target.value.replace(",", "."));
				if (Number.isFinite(typed) && typed > 0) set(typed);
			}}
		/>
	);
}
