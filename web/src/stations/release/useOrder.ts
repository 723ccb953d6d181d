import { useQueryClient } from "@tanstack/react-query";
import { client, Refusal, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

/** Place an order at the chosen house. */
export function useOrder(): (quantity: number) => Promise<void> {
	const { head, say } = useDesign();
	const queries = useQueryClient();
	return async (quantity) => {
		try {
			const order = await take(
				client.POST("/api/projects/{project_id}/orders", {
					params: { path: { project_id: head.project } },
					body: { quantity },
				}),
			);
			say({ kind: "done", sentence: `Order ${order.id} is placed with ${order.house_name} (simulated).`, wayOut: "" });
			await queries.invalidateQueries({ queryKey: ["project", head.project, "orders"] });
		} catch (problem) {
			if (problem instanceof Refusal) say({ kind: "refused", sentence: problem.sentence, wayOut: problem.wayOut });
			else throw problem;
		}
	};
}
