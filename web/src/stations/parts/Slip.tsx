import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Offers = Schemas["LineOffers"];
type Offer = Schemas["OfferRow"];
type Bought = Schemas["Bought"];

const euro = (cents: number) => `${(cents / 100).toFixed(2)} €`;

/** The offer to take: of those that have enough, the one that costs least. */
export function bestOf(offers: Offer[]): Offer | undefined {
	return offers.filter((o) => o.pieces >= o.buys).sort((a, b) => a.total_cents - b.total_cents)[0];
}

/** A line to buy: how many, what, what suppliers ask for it, and what was really bought. */
export function Slip({
	line,
	count,
	what,
	more,
	bought,
	offers,
}: {
	line: string;
	count: number;
	what: string;
	more: string;
	bought: Bought | null;
	offers?: Offers | undefined;
}) {
	const [open, setOpen] = useState(false);
	const best = offers ? bestOf(offers.offers) : undefined;
	return (
		<li className="flex gap-3 border-b border-rule py-1.5" data-line={line}>
			<span className="figure w-[56px] shrink-0 text-right font-medium">{count} x</span>
			<span className="min-w-0 flex-1">
				{what}
				<span className="block text-[12px] text-ink-2">{more}</span>
				{offers?.offers.map((offer) => (
					<OfferLine
						key={`${offer.supplier} ${offer.order_number}`}
						offer={offer}
						best={offer === best}
						count={count}
					/>
				))}
				{offers && !best && (
					<span className="flex items-start gap-1.5 text-[12px] text-look">
						<span className="mt-[3px]">
							<Sign kind="look" size={11} />
						</span>
						Neither has enough.{" "}
						{offers.drop_ins.length > 0
							? `On the same pads goes: ${offers.drop_ins.map(([, words]) => words).join("; ")}.`
							: "Order it first, or choose another part."}
					</span>
				)}
				<span className="flex flex-wrap items-baseline gap-2 text-[12px]">
					{bought && (
						<span>
							Bought: <span className="figure">{bought.maker_part}</span>
							{bought.pieces > 0 && <span className="figure"> ({bought.pieces})</span>}
							{bought.substitute && <span className="text-look"> in place of it</span>}
						</span>
					)}
					<Button
						weight="quiet"
						className="!px-0 !py-0 text-[12px]"
						aria-expanded={open}
						onClick={() => setOpen(!open)}
					>
						{bought ? "Change" : "Say what was bought"}
					</Button>
				</span>
				{open && <BoughtForm line={line} bought={bought} done={() => setOpen(false)} />}
			</span>
		</li>
	);
}

function OfferLine({ offer, best, count }: { offer: Offer; best: boolean; count: number }) {
	return (
		<span className="block text-[12px]">
			<span className="figure">{euro(offer.total_cents)}</span>{" "}
			<span className={best ? "font-medium" : "text-ink-2"}>
				{offer.supplier}
				{offer.pieces < offer.buys
					? `: ${offer.pieces} there, more in ${offer.days} days`
					: `: here in ${offer.days} days`}
				{offer.buys > count ? `; sells ${offer.buys} at least` : ""}
				{offer.order_number && `; ${offer.order_number}, seen ${offer.seen_on}${offer.old ? ", long ago" : ""}`}
				{offer.next_break ? `; less each from ${offer.next_break}` : ""}
			</span>
		</span>
	);
}

/** The maker's part as the bag says, from whom, and whether it takes the place of what was asked for. */
function BoughtForm({ line, bought, done }: { line: string; bought: Bought | null; done: () => void }) {
	const { edit } = useDesign();
	const [form, setForm] = useState<Bought>(bought ?? { maker_part: "", supplier: "", substitute: false, pieces: 0 });
	const keep = async (kept: Bought | null) => {
		if (await edit({ kind: "name-bought", line, bought: kept })) done();
	};
	const look = "border border-line bg-card px-1 py-0.5";
	return (
		<form
			className="mt-1 flex flex-wrap items-center gap-2 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				void keep(form);
			}}
		>
			<input
				aria-label="Maker's part"
				placeholder="maker's part"
				className={`w-[140px] ${look}`}
				maxLength={60}
				value={form.maker_part}
				onChange={(event) => setForm({ ...form, maker_part: event.target.value })}
			/>
			<input
				aria-label="From"
				placeholder="from"
				className={`w-[110px] ${look}`}
				maxLength={60}
				value={form.supplier}
				onChange={(event) => setForm({ ...form, supplier: event.target.value })}
			/>
			<label className="flex items-center gap-1">
				<input
					type="number"
					min={0}
					max={1000000}
					className={`w-[64px] ${look}`}
					value={form.pieces || ""}
					onChange={(event) => setForm({ ...form, pieces: Math.trunc(Number(event.target.value)) || 0 })}
				/>
				pieces
			</label>
			<label className="flex items-center gap-1">
				<input
					type="checkbox"
					checked={form.substitute}
					onChange={(event) => setForm({ ...form, substitute: event.target.checked })}
				/>
				in place of it
			</label>
			<Button type="submit" className="!py-0" disabled={!form.maker_part.trim()}>
				Keep
			</Button>
			{bought && (
				<Button className="!py-0" onClick={() => void keep(null)}>
					Forget
				</Button>
			)}
		</form>
	);
}
