import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Heading } from "./fields";
import type { Supplier } from "./owned";

/** The lines of a price list, looked through, and which part of the shelf each is. */
export function Prices({ supplier }: { supplier: Supplier }) {
	const [words, setWords] = useState("");
	const query = useQuery({
		queryKey: ["shelf", "prices", supplier.id, words],
		queryFn: () => take(client.GET("/api/shelf/prices", { params: { query: { supplier: supplier.id, words } } })),
		placeholderData: (before) => before,
	});
	const lines = query.data?.lines ?? [];
	return (
		<section aria-label="Prices" className="mt-4">
			<Heading>
				What it sells <span className="figure font-normal text-ink-2">{query.data?.count ?? ""}</span>
			</Heading>
			<p className="mt-1 flex items-center gap-3 text-[12px] text-ink-2">
				<input
					type="search"
					aria-label="Search prices"
					placeholder="number or words"
					className="w-[220px] border border-line bg-card px-1.5 py-0.5 text-ink"
					value={words}
					onChange={(event) => setWords(event.target.value)}
				/>
				A line serves a part whose makers' numbers hold its own; any other can be said here, and so can screws, cables
				and the like: kit: and the words that the kit has for them.
			</p>
			<table className="mt-1 w-full text-[12px]">
				<thead>
					<tr className="text-left text-ink-2 [&>th]:py-1 [&>th]:font-normal">
						<th>order number</th>
						<th>maker's number</th>
						<th>what it is</th>
						<th className="text-right">there</th>
						<th className="text-right">each, from</th>
						<th className="pl-3">part of the shelf</th>
					</tr>
				</thead>
				<tbody>
					{lines.map((line) => (
						<Row key={line.order_number} line={line} supplier={supplier} />
					))}
				</tbody>
			</table>
			{(query.data?.count ?? 0) > lines.length && (
				<p className="text-[12px] text-ink-2">and {(query.data?.count ?? 0) - lines.length} more; search for them.</p>
			)}
		</section>
	);
}

function Row({ line, supplier }: { line: Schemas["PriceLine"]; supplier: Supplier }) {
	const queries = useQueryClient();
	const [problem, setProblem] = useState("");
	const link = async (part: string) => {
		try {
			await take(
				client.PUT("/api/shelf/price-link", {
					body: { supplier: supplier.id, order_number: line.order_number, part },
				}),
			);
			setProblem("");
			await queries.invalidateQueries({ queryKey: ["shelf", "prices"] });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(error.sentence);
		}
	};
	return (
		<tr className="border-t border-rule [&>td]:py-0.5" data-line={line.order_number}>
			<td>{line.order_number}</td>
			<td>{line.maker_number}</td>
			<td className="text-ink-2">{line.description}</td>
			<td className="figure text-right">{line.stock ?? <span className="text-look">not said</span>}</td>
			<td className="figure text-right whitespace-nowrap">
				{line.breaks.map(([from, cents]) => `${from}: ${(cents / 100).toFixed(3)}`).join("  ")} {supplier.currency}
			</td>
			<td className="pl-3">
				<input
					key={line.part}
					aria-label={`Part that ${line.order_number} is`}
					placeholder="id of a part, or kit: and its words"
					title="A part of the shelf by its id; or kit: and the words of a line of the kit, such as a screw or a cable"
					className="w-[170px] border border-line bg-card px-1"
					defaultValue={line.part}
					onBlur={(event) => event.target.value.trim() !== line.part && void link(event.target.value.trim())}
					onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
				/>
				{problem && <span className="block text-stop">{problem}</span>}
			</td>
		</tr>
	);
}
