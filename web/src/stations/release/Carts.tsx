import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

/** A cart for every supplier of one's own, in the columns that its page reads in; nothing where there is none. */
export function Carts() {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "carts", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/carts", { params: { path: { project_id: head.project } } })),
	});
	const carts = query.data?.carts ?? [];
	const nowhere = query.data?.nowhere ?? [];
	if (!carts.length) return null;
	return (
		<section aria-label="Carts" className="border-t border-rule px-4 py-3" data-testid="carts">
			<h2 className="mb-2 font-semibold">
				Carts for <span className="figure">{head.brief.quantity}</span> devices
			</h2>
			<ul>
				{carts.map((cart) => (
					<li
						key={cart.supplier}
						className="flex items-center gap-3 border-b border-rule py-1"
						data-cart={cart.supplier}
					>
						<span className="flex-1">
							{cart.supplier}: <span className="figure">{cart.rows.length}</span> lines,{" "}
							<span className="figure">{(cart.cents / 100).toFixed(2)} €</span>
						</span>
						<a
							className="text-patina underline"
							href={fileOf(cart)}
							download={`cart-${cart.supplier.toLowerCase().replace(/[^a-z0-9]+/g, "-")}.csv`}
						>
							Cart as a file
						</a>
					</li>
				))}
			</ul>
			{nowhere.length > 0 && (
				<p className="mt-1 text-[12px] text-ink-2">
					None of them sells{" "}
					{nowhere
						.slice(0, 4)
						.map((line) =>
							line.references === "kit"
								? `${line.description} (of the kit)`
								: `${line.references.split(" ")[0]}, ${line.description}`,
						)
						.join("; ")}
					{nowhere.length > 4 && ` and ${nowhere.length - 4} more`}.
				</p>
			)}
		</section>
	);
}

const fileOf = (cart: Schemas["Cart"]) => `data:text/csv;charset=utf-8,${encodeURIComponent(cart.text)}`;
