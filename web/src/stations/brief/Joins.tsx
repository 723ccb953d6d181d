import { useDesign } from "../../document/useDesign";
import { joinsIn, joinsText, netName, PLACES } from "./joins";

/** Where each terminal of a part of the shelf goes: to the rail, to the brain, or to a net that it shares with others. */
export function Joins({ part, text, set }: { part: string; text: string; set: (text: string) => void }) {
	const { head } = useDesign();
	const joins = joinsIn(text);
	const terminals = Object.entries(head.choices.shelf[part]?.terminals ?? {});
	const put = (terminal: string, where: string) => {
		const next = new Map(joins);
		if (where) next.set(terminal, where);
		else next.delete(terminal);
		set(joinsText(next));
	};
	if (terminals.length === 0)
		return (
			<p className="text-[12px] text-ink-2">
				Take a part into this project at Parts, from the shelf; its terminals are joined here then.
			</p>
		);
	return (
		<table className="w-full text-[12px]" data-testid="joins">
			<tbody>
				{terminals.map(([terminal, about]) => {
					const where = joins.get(terminal) ?? "";
					const own = where.startsWith("@");
					return (
						<tr key={terminal} className="border-t border-rule" data-terminal={terminal}>
							<td className="py-0.5 pr-1">
								<span className="block leading-tight">{terminal}</span>
								<span className="text-ink-2">{about.pads.join(" ")}</span>
							</td>
							<td className="w-[128px] py-0.5">
								<select
									aria-label={`Where ${terminal} goes`}
									className="w-full border border-line bg-card"
									value={own ? "net" : where}
									onChange={(event) => put(terminal, event.target.value === "net" ? "@NET" : event.target.value)}
								>
									<option value="">{usual(about.does, about.open)}</option>
									{PLACES.map((place) => (
										<option key={place} value={place}>
											{place}
										</option>
									))}
									<option value="net">a net of its own</option>
								</select>
								{own && (
									<input
										key={where}
										aria-label={`Net of ${terminal}`}
										className="mt-0.5 w-full border border-line bg-card px-1"
										defaultValue={where.slice(1)}
										onBlur={(event) => {
											const name = netName(event.target.value);
											if (name && name !== where) put(terminal, name);
										}}
										onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
									/>
								)}
							</td>
						</tr>
					);
				})}
			</tbody>
		</table>
	);
}

/** What becomes of a terminal of which nothing is said, as the recipe has it. */
function usual(does: string, open: string): string {
	if (does === "supply") return "the supply";
	if (does === "ground" || does === "heat") return "the ground";
	return does === "nothing" || open ? "stays open" : "to be said";
}
