import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { OnceMore } from "./OnceMore";
import { useOrder } from "./useOrder";

type Quote = Schemas["QuoteView"];

const money = (cents: number) => `${(cents / 100).toFixed(2)} €`;

/** Quotes of all houses side by side, for a quantity. */
export function Quotes() {
	const { head } = useDesign();
	const [quantity, setQuantity] = useState(head.brief.quantity);
	const query = useQuery({
		queryKey: ["project", head.project, "quotes", head.version, quantity],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/quotes", {
					params: { path: { project_id: head.project }, query: { quantity } },
				}),
			),
		placeholderData: (before) => before,
	});
	return (
		<section aria-label="Quotes" className="px-4 py-3">
			<div className="mb-2 flex items-center gap-3">
				<h2 className="font-semibold">Quotes</h2>
				<label className="flex items-center gap-2">
					for
					<input
						type="number"
						min={1}
						max={10000}
						aria-label="Quantity"
						className="figure w-[80px] border border-line bg-card px-2 py-0.5 text-right"
						value={quantity}
						onChange={(event) => setQuantity(Math.min(10000, Math.max(1, Number(event.target.value) || 1)))}
					/>
					boards
				</label>
			</div>
			{query.error && <p className="text-stop">{query.error.message}</p>}
			<div className="grid grid-cols-[repeat(auto-fit,minmax(300px,1fr))] gap-4">
				{(query.data ?? []).map((quote) => (
					<House key={quote.house} quote={quote} />
				))}
			</div>
		</section>
	);
}

function House({ quote }: { quote: Quote }) {
	const { head, edit } = useDesign();
	const order = useOrder();
	const { choices } = head;
	const chosen = choices.house === quote.house;
	const { making } = head.brief;
	const set = (change: Partial<typeof making>) => void edit({ kind: "set-making", making: { ...making, ...change } });
	const choose = (shipping: string, change: Partial<typeof making> = {}, own = choices.own_house) =>
		void edit({
			kind: "choose-house",
			house: quote.house,
			shipping,
			making: { ...making, ...change },
			own: own && own.id === quote.house ? own : null,
		});
	const nearest = {
		finish: quote.finishes.includes(making.finish) ? making.finish : (quote.finishes[0] ?? making.finish),
		colour: quote.colours.includes(making.colour) ? making.colour : (quote.colours[0] ?? making.colour),
		thickness_mm: quote.thickness_um.includes(Math.round(making.thickness_mm * 1000))
			? making.thickness_mm
			: (quote.thickness_um.at(-1) ?? 1600) / 1000,
		copper_um: quote.copper_um.includes(making.copper_um) ? making.copper_um : (quote.copper_um[0] ?? making.copper_um),
	};
	return (
		<article
			data-house={quote.house}
			className={`border bg-card p-3 ${chosen ? "border-2 border-copper" : "border-rule"}`}
		>
			<h3 className="font-semibold">
				{quote.house_name} {chosen && <span className="font-normal text-copper">chosen</span>}
			</h3>
			<p className="text-[12px] text-ink-2">
				{quote.simulated && <span className="mr-1 border border-legend px-1 text-legend">simulated</span>}
				{quote.about && `${quote.about.replace(/\.$/, "")}.`}
				{quote.within_cents > 0 &&
					` Learnt from its quotes: a next one is missed by about ${money(quote.within_cents)}.`}
			</p>
			{chosen && quote.changed && (
				<p className="mt-1 flex items-center gap-1.5 text-[12px]" data-testid="house-changed">
					<Sign kind="look" size={12} /> The shelf has it otherwise now.
					<Button weight="quiet" onClick={() => choose(choices.shipping, {}, quote.own)}>
						Take the change
					</Button>
				</p>
			)}
			<table className="mt-2 w-full">
				<tbody>
					{quote.lines.map((line) => (
						<tr key={line.id}>
							<td className="text-ink-2">{line.title}</td>
							<td className="text-right">
								<Figure working={line} unit={false} />
							</td>
						</tr>
					))}
					<tr className="border-t border-ink font-medium">
						<td>landed</td>
						<td className="text-right" data-testid="total">
							<Figure working={quote.total} unit={false} />
						</td>
					</tr>
					<tr>
						<td className="text-ink-2">each</td>
						<td className="text-right">
							<Figure working={quote.each} unit={false} />
						</td>
					</tr>
				</tbody>
			</table>
			<p className="mt-1 flex items-center gap-1.5 text-[12px]">
				<Sign kind={quote.in_time ? "clear" : "look"} size={12} />
				arrives {quote.arrives_on}, {quote.in_time ? "in time for" : "too late for"} {head.brief.wanted_by}
			</p>
			{quote.next_break && (
				<p className="text-[12px] text-ink-2">
					next price break at {quote.next_break[0]} boards: board price falls to {Math.round(quote.next_break[1] * 100)}{" "}
					%
				</p>
			)}
			{quote.cheaper && (
				<p className="flex items-center gap-1.5 text-[12px] font-medium" data-testid="cheaper">
					<Sign kind="look" size={12} />
					<span>
						<span className="figure">{quote.cheaper[0]}</span> boards cost less in all:{" "}
						<span className="figure">{money(quote.cheaper[1])}</span>
					</span>
				</p>
			)}
			{quote.complaints.map((words) => (
				<p key={words} className="mt-1 flex items-start gap-1.5 text-[12px] text-stop">
					<Sign kind="stop" size={12} /> {words}
				</p>
			))}
			{chosen ? (
				<div className="mt-2 flex flex-wrap items-center gap-2">
					<Select name="Finish" value={making.finish} options={quote.finishes} change={(finish) => set({ finish })} />
					<Select name="Colour" value={making.colour} options={quote.colours} change={(colour) => set({ colour })} />
					<Select
						name="Thickness"
						value={String(Math.round(making.thickness_mm * 1000))}
						options={quote.thickness_um.map(String)}
						words={(t) => `${(Number(t) / 1000).toFixed(1)} mm`}
						change={(t) => set({ thickness_mm: Number(t) / 1000 })}
					/>
					<Select
						name="Copper"
						value={String(making.copper_um)}
						options={quote.copper_um.map(String)}
						words={(t) => `copper ${t} µm`}
						change={(t) => set({ copper_um: Number(t) })}
					/>
					<Select
						name="Shipping"
						value={choices.shipping}
						options={quote.shipping}
						change={(shipping) => choose(shipping)}
					/>
					<Button
						weight="main"
						disabled={quote.complaints.length > 0}
						onClick={() => void order.place(quote.quantity)}
						data-testid="order"
					>
						{quote.simulated ? "Order" : "Note the order of"} {quote.quantity}
					</Button>
					<OnceMore order={order} />
				</div>
			) : (
				<Button
					className="mt-2"
					onClick={() => choose(quote.shipping[0] ?? "", nearest, quote.own)}
					data-testid="choose"
				>
					Choose this house
				</Button>
			)}
		</article>
	);
}

type SelectProps = {
	name: string;
	value: string;
	options: string[];
	words?: (value: string) => string;
	change: (value: string) => void;
};

function Select({ name, value, options, words = (v) => v, change }: SelectProps) {
	return (
		<select
			aria-label={name}
			className="border border-line bg-paper px-1 py-1"
			value={value}
			onChange={(event) => change(event.target.value)}
		>
			{!options.includes(value) && <option value={value}>{words(value)}</option>}
			{options.map((option) => (
				<option key={option} value={option}>
					{words(option)}
				</option>
			))}
		</select>
	);
}
