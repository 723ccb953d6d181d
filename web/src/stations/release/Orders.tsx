import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";

type Order = Schemas["OrderView"];

/** Orders with their states on a simulated calendar. */
export function Orders() {
	const { head } = useDesign();
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
	if (!query.data?.length) return null;
	return (
		<section aria-label="Orders" className="border-t border-rule px-4 py-3">
			<h2 className="mb-2 font-semibold">
				Orders <span className="border border-legend px-1.5 text-[12px] font-normal text-legend">simulated</span>
			</h2>
			{query.data.map((order) => (
				<Row key={order.id} order={order} pass={() => void pass(order)} />
			))}
		</section>
	);
}

function Row({ order, pass }: { order: Order; pass: () => void }) {
	const now = order.states.indexOf(order.state);
	return (
		<div className="border-b border-rule py-2" data-order={order.id} data-state={order.state}>
			<div className="flex items-center gap-3">
				<span className="flex-1">
					Order {order.id}: {order.quantity} boards at {order.house_name}, <Figure working={order.total} unit={false} />
				</span>
				<span className="figure text-[12px] text-ink-2">{order.date}</span>
				<Button onClick={pass} disabled={now === order.states.length - 1}>
					Let a day pass
				</Button>
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
			<p className="text-[12px] text-ink-2">{order.sentence}</p>
		</div>
	);
}
