import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { useDesign } from "../../document/useDesign";
import { OnceMore } from "./OnceMore";
import { useOrder } from "./useOrder";

type Order = Schemas["OrderView"];

/** Orders with their states; those at simulated houses go on by simulated days. */
export function Orders() {
	const { head } = useDesign();
	const parts = useOrder("parts");
	const key = ["project", head.project, "orders"];
	const queries = useQueryClient();
	const query = useQuery({
		queryKey: key,
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/orders", { params: { path: { project_id: head.project } } })),
	});
	const pass = async (order: Order) => {
		await take(
			client.POST("/api/orders/{order_id}/next-day", {
				params: { path: { order_id: order.id } },
				body: { day: order.day },
			}),
		);
		await queries.invalidateQueries({ queryKey: key });
	};
	if (!query.data) return null;
	return (
		<section aria-label="Orders" className="border-t border-rule px-4 py-3">
			<h2 className="mb-2 font-semibold">
				Orders{" "}
				<Button className="mr-2" onClick={() => void parts.place(head.brief.quantity)} data-testid="order-parts">
					Order parts for {head.brief.quantity}
				</Button>
			</h2>
			<OnceMore order={parts} />
			<Since />
			{query.data.map((order) => (
				<Row key={order.id} order={order} pass={() => void pass(order)} />
			))}
		</section>
	);
}

/** What has changed since the boards were ordered last. */
function Since() {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "order changes", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/orders/changes", { params: { path: { project_id: head.project } } })),
	});
	const changes = query.data ?? [];
	if (!changes.length) return null;
	return (
		<p className="mb-2 text-[12px]">
			Changed since the last order:{" "}
			{changes
				.slice(0, 6)
				.map((row) => `${row.about} ${row.how}`)
				.join("; ")}
			{changes.length > 6 && ` and ${changes.length - 6} more`}.
		</p>
	);
}

/** The house waits until its query is answered. */
function Answer({ order }: { order: Order }) {
	const { head } = useDesign();
	const [words, setWords] = useState("");
	const { ask, problem } = useAsking(["project", head.project, "orders"]);
	return (
		<form
			className="mt-1 flex gap-2"
			onSubmit={(event) => {
				event.preventDefault();
				void ask(() =>
					take(
						client.POST("/api/orders/{order_id}/answer", { params: { path: { order_id: order.id } }, body: { words } }),
					),
				);
			}}
		>
			<input
				aria-label="Answer to the house"
				placeholder="your answer"
				className="w-[360px] border border-line bg-card px-2 py-0.5"
				value={words}
				onChange={(event) => setWords(event.target.value)}
			/>
			<Button type="submit" disabled={words.trim().length < 2} data-testid="answer">
				Answer
			</Button>
			{problem && <span className="text-stop">{problem}</span>}
		</form>
	);
}

function Row({ order, pass }: { order: Order; pass: () => void }) {
	const { head } = useDesign();
	const now = order.states.indexOf(order.state);
	return (
		<div className="border-b border-rule py-2" data-order={order.id} data-state={order.state}>
			<div className="flex items-center gap-3">
				<span className="flex-1">
					Order {order.id}
					{order.revision !== head.revision && ` of revision ${order.revision}`}:{" "}
					{order.simulated && <span className="mr-1 border border-legend px-1 text-[12px] text-legend">simulated</span>}
					{order.kind === "parts" ? `parts for ${order.quantity}` : `${order.quantity} boards`} at {order.house_name},{" "}
					<Figure working={order.total} unit={false} />
				</span>
				<span className="figure text-[12px] text-ink-2">{order.date}</span>
				{order.simulated && (
					<Button onClick={pass} disabled={now === order.states.length - 1} data-testid="next-day">
						Let a day pass
					</Button>
				)}
			</div>
			<ol className="mt-1 flex gap-1 text-[12px]">
				{order.states.map((state, index) => (
					<li
						key={state}
						className={`flex-1 border-t-4 pt-0.5 ${index <= now ? "border-patina" : "border-rule text-ink-2"} ${index === now ? "font-semibold" : ""}`}
					>
						{state}
					</li>
				))}
			</ol>
			<p className={order.asks ? "mt-1 flex items-start gap-1.5" : "text-[12px] text-ink-2"}>
				{order.asks && <Sign kind="look" size={12} />} {order.sentence}
			</p>
			{order.asks && <Answer order={order} />}
			{order.answer && <p className="text-[12px] text-ink-2">Answered: {order.answer}</p>}
		</div>
	);
}
