import { useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { client, Refusal, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

/** Place an order: of boards at the chosen house, or of their parts. */
export function useOrder(what: "boards" | "parts" = "boards"): (quantity: number) => Promise<void> {
	const { head, say } = useDesign();
	const queries = useQueryClient();
	// One key until the order is answered: a press that is repeated meanwhile is the same order.
	const key = useRef(crypto.randomUUID());
	return async (quantity) => {
		try {
			const order = await take(
				client.POST(
					what === "boards" ? "/api/projects/{project_id}/orders" : "/api/projects/{project_id}/parts-orders",
					{
						params: { path: { project_id: head.project } },
						body: { quantity, key: key.current },
					},
				),
			);
			key.current = crypto.randomUUID();
			say({ kind: "done", sentence: `Order ${order.id} is placed with ${order.house_name} (simulated).`, wayOut: "" });
			await queries.invalidateQueries({ queryKey: ["project", head.project, "orders"] });
		} catch (problem) {
			if (problem instanceof Refusal) say({ kind: "refused", sentence: problem.sentence, wayOut: problem.wayOut });
			else throw problem;
		}
	};
}
