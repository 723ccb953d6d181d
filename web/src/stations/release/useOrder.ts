import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

type Boards = Schemas["OrderRequest"];

/** Place an order: of boards at the chosen house, or of their parts. What is ordered already is asked for once more. */
export function useOrder(what: "boards" | "parts" = "boards") {
	const { head, say } = useDesign();
	const queries = useQueryClient();
	const [asked, setAsked] = useState<{ quantity: number; why: string } | null>(null);
	// One key until the order is answered: a press that is repeated meanwhile is the same order.
	const key = useRef(crypto.randomUUID());
	const place = async (quantity: number, again = false) => {
		const params = { path: { project_id: head.project } };
		const body: Boards = { quantity, key: key.current, again };
		try {
			const order = await take(
				what === "boards"
					? client.POST("/api/projects/{project_id}/orders", { params, body })
					: client.POST("/api/projects/{project_id}/parts-orders", { params, body }),
			);
			key.current = crypto.randomUUID();
			setAsked(null);
			say({
				kind: "done",
				sentence: order.simulated
					? `Order ${order.id} is placed with ${order.house_name} (simulated).`
					: `Order ${order.id} is noted: send the files or the cart to ${order.house_name} yourself.`,
				wayOut: "",
			});
			await queries.invalidateQueries({ queryKey: ["project", head.project, "orders"] });
		} catch (problem) {
			if (!(problem instanceof Refusal)) throw problem;
			if (problem.place === "again") setAsked({ quantity, why: problem.sentence });
			else say({ kind: "refused", sentence: problem.sentence, wayOut: problem.wayOut });
		}
	};
	return { place, asked, forget: () => setAsked(null) };
}
