import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";

type Row = Schemas["BookRow"];
const KEY = ["order book"];

/** The orders of all projects, the newest first; each can be placed once more with its own files. */
export function OrderBook() {
	const queries = useQueryClient();
	const query = useQuery({ queryKey: KEY, queryFn: () => take(client.GET("/api/orders")) });
	// One key for each order until it is answered: a press that is repeated meanwhile is the same order.
	const keys = useRef(new Map<number, string>());
	const [said, setSaid] = useState("");
	const again = async (row: Row) => {
		const key = keys.current.get(row.id) ?? crypto.randomUUID();
		keys.current.set(row.id, key);
		try {
			const placed = await take(
				client.POST("/api/orders/{order_id}/repeat", { params: { path: { order_id: row.id } }, body: { key } }),
			);
			keys.current.delete(row.id);
			setSaid(`Order ${placed.id} is placed with ${placed.house_name} (simulated), with the files of order ${row.id}.`);
			await queries.invalidateQueries({ queryKey: KEY });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setSaid(`${error.sentence} ${error.wayOut}`);
		}
	};
	const rows = query.data ?? [];
	return (
		<section aria-label="Order book" className="mt-3">
			<p role="status" className="min-h-[24px] text-[12px]">
				{said || (
					<span className="border border-legend px-1.5 text-legend">
						simulated houses and suppliers, invented prices
					</span>
				)}
			</p>
			<table className="mt-1 w-full" data-testid="order-book">
				<thead>
					<tr className="border-b border-ink text-left text-[12px] text-ink-2">
						<th className="py-1 font-normal">order</th>
						<th className="font-normal">placed</th>
						<th className="font-normal">project</th>
						<th className="font-normal">what</th>
						<th className="font-normal">from</th>
						<th className="text-right font-normal">landed</th>
						<th className="pl-5 font-normal">stands at</th>
						<th className="font-normal">
							<span className="sr-only">again</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{rows.map((row) => (
						<tr key={row.id} className="border-b border-rule" data-order={row.id}>
							<td className="figure py-1.5">{row.id}</td>
							<td className="figure">{row.placed_on}</td>
							<td>
								<Link className="text-patina hover:underline" to={`/project/${row.project}/release`}>
									{row.project_name}
								</Link>{" "}
								<span className="text-ink-2">{row.revision}</span>
							</td>
							<td>{row.kind === "parts" ? `parts for ${row.quantity}` : `${row.quantity} boards`}</td>
							<td>{row.house}</td>
							<td className="figure text-right">{(row.total_cents / 100).toFixed(2)} €</td>
							<td className="pl-5">{row.state}</td>
							<td className="text-right">
								<Button className="!py-0.5 text-[12px]" onClick={() => void again(row)}>
									Order again
								</Button>
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{query.data && rows.length === 0 && (
				<p className="mt-4 text-ink-2">Nothing has been ordered yet. Orders are placed at the Release of a project.</p>
			)}
		</section>
	);
}
