import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { idOf, SUPPLIERS, type Supplier } from "./owned";
import { PriceList } from "./PriceList";
import { Prices } from "./Prices";
import { SupplierForm } from "./SupplierForm";

const BLANK: Supplier = {
	id: "supplier/new",
	name: "",
	known: "typed",
	currency: "EUR",
	euro_each: 1,
	rate_seen: null,
	vat_share: 0,
	duty_share: 0,
	shipping: [[0, 690]],
	days: 7,
	columns: {},
	decimal: ".",
	cart: [
		{ heading: "order number", holds: "order number" },
		{ heading: "pieces", holds: "pieces" },
		{ heading: "for", holds: "references" },
	],
};

/** Suppliers of parts: their terms, their price lists taken in, how they want their carts. */
export function SuppliersPage() {
	const queries = useQueryClient();
	const query = useQuery({ queryKey: SUPPLIERS, queryFn: () => take(client.GET("/api/shelf/suppliers")) });
	const [picked, setPicked] = useState("");
	const [draft, setDraft] = useState<Supplier | null>(null);
	const [problem, setProblem] = useState("");
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Opening the shelf.</p>;
	const rows = query.data;
	const row = rows.find((one) => one.supplier.id === picked) ?? rows[0];
	const ask = async (request: () => Promise<void>) => {
		try {
			await request();
			setProblem("");
			await queries.invalidateQueries({ queryKey: SUPPLIERS });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	const keep = (supplier: Supplier) =>
		ask(async () => {
			const own = row?.supplier.id === supplier.id;
			const taken = rows.map((one) => one.supplier.id);
			const named = own ? supplier : { ...supplier, id: idOf("supplier", supplier.name, taken) };
			await take(client.PUT("/api/shelf/supplier", { body: { supplier: named, version: own ? row.version : 0 } }));
			setPicked(named.id);
			setDraft(null);
		});
	const drop = (one: Schemas["SupplierRow"]) =>
		ask(async () => {
			const query = { id: one.supplier.id, version: one.version };
			await take(client.DELETE("/api/shelf/entry", { params: { query } }));
			setPicked("");
		});
	return (
		<div className="flex min-h-0 flex-1">
			<nav aria-label="Suppliers" className="w-[240px] shrink-0 overflow-y-auto border-r border-rule py-3 pr-3">
				<Button className="mb-2 w-full" data-testid="new-supplier" onClick={() => setDraft(BLANK)}>
					New supplier
				</Button>
				{rows.map((one) => (
					<button
						key={one.supplier.id}
						type="button"
						data-supplier={one.supplier.id}
						aria-pressed={!draft && row === one}
						className={`mb-1.5 w-full border px-2 py-1.5 text-left ${!draft && row === one ? "border-copper bg-card" : "border-line hover:border-ink-2"}`}
						onClick={() => {
							setDraft(null);
							setPicked(one.supplier.id);
						}}
					>
						<span className="block leading-tight">{one.supplier.name}</span>
						<span className="text-[12px] text-ink-2">{one.version ? `${one.prices} prices` : "simulated"}</span>
					</button>
				))}
			</nav>
			<section aria-label="Supplier" className="min-w-0 flex-1 overflow-y-auto px-5 py-4" data-testid="supplier-bench">
				{draft ? (
					<>
						<div className="flex items-center gap-2">
							<h2 className="flex-1 text-[20px] font-semibold">{draft.name || "A supplier that is being typed"}</h2>
							<Button onClick={() => setDraft(null)}>Leave it as it was</Button>
							<Button
								weight="main"
								data-testid="keep-supplier"
								disabled={!draft.name.trim()}
								onClick={() => void keep(draft)}
							>
								Keep on the shelf
							</Button>
						</div>
						{problem && (
							<p role="alert" className="mt-1 text-stop">
								{problem}
							</p>
						)}
						<SupplierForm key={draft.id} supplier={draft} put={setDraft} />
					</>
				) : row ? (
					<>
						<div className="flex items-center gap-2">
							<h2 className="flex-1 text-[20px] font-semibold">{row.supplier.name}</h2>
							{row.version > 0 && <Button onClick={() => setDraft(row.supplier)}>Change it</Button>}
							{row.version > 0 && <Button onClick={() => void drop(row)}>Take off the shelf</Button>}
						</div>
						{problem && (
							<p role="alert" className="mt-1 text-stop">
								{problem}
							</p>
						)}
						<Terms supplier={row.supplier} />
						{row.version > 0 ? (
							<>
								<PriceList
									key={row.supplier.id}
									supplier={row.supplier}
									taken={() => void queries.invalidateQueries({ queryKey: SUPPLIERS })}
								/>
								{row.prices > 0 && <Prices key={`${row.supplier.id} ${row.version}`} supplier={row.supplier} />}
							</>
						) : (
							<p className="mt-3 text-ink-2">
								It ships with Loquet and sells what Loquet brings, at invented prices. Real ones come from a supplier of
								one's own: give it a name, read in its price list, and every part that it sells costs what it says.
							</p>
						)}
					</>
				) : null}
			</section>
		</div>
	);
}

function Terms({ supplier }: { supplier: Supplier }) {
	const money = (cents: number) => `${(cents / 100).toFixed(2)} ${supplier.currency}`;
	const steps = supplier.shipping
		.map(([from, cents]) => (from ? `${money(cents)} from ${money(from)} on` : money(cents)))
		.join(", ");
	return (
		<p className="mt-1 text-ink-2">
			Ships for {steps || "nothing"}; {supplier.days} days where its list does not say
			{supplier.duty_share > 0 && `; duty ${(supplier.duty_share * 100).toFixed(1)} %`}
			{supplier.vat_share > 0 && `; tax ${(supplier.vat_share * 100).toFixed(1)} %`}
			{supplier.currency !== "EUR" &&
				`; one ${supplier.currency} is ${supplier.euro_each} €${supplier.rate_seen ? `, seen ${supplier.rate_seen}` : ""}`}
			. Its cart has the columns {supplier.cart.map((column) => column.heading).join(", ")}.
		</p>
	);
}
