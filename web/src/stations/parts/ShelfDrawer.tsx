import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Taken = Schemas["TakenView"];

/** Parts of one's own in this project, and which part serves where several could. */
export function ShelfDrawer() {
	const { head, edit } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "shelf", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/shelf", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	if (query.error) return <p className="p-5 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-5 text-ink-2">Looking on the shelf.</p>;
	const { taken, kinds, could_take: could } = query.data;
	const takeIn = async (id: string) => {
		const { part } = await take(client.GET("/api/shelf/part", { params: { query: { id } } }));
		await edit({ kind: "take-part", part });
	};
	return (
		<div
			className="grid min-h-0 flex-1 grid-cols-[minmax(330px,5fr)_6fr] gap-8 overflow-y-auto p-5"
			data-testid="shelf-drawer"
		>
			<section aria-label="Parts of one's own">
				<h2 className="flex items-baseline justify-between border-b border-ink pb-1 font-semibold">
					Parts of one's own
					<Link to="/shelf?kind=own" className="text-[12px] font-normal text-patina underline">
						to the shelf
					</Link>
				</h2>
				{taken.length + could.length === 0 && (
					<p className="mt-2 text-ink-2">
						The workshop has none yet. Put a part on the shelf from its data sheet, then take it here.
					</p>
				)}
				<ul>
					{taken.map((row) => (
						<OneTaken key={row.part.id} row={row} takeIn={takeIn} />
					))}
				</ul>
				{could.length > 0 && (
					<h3 className="mt-5 border-b border-rule pb-1 text-ink-2">On the shelf, not in this project</h3>
				)}
				<ul>
					{could.map((row) => (
						<li key={row.id} className="flex items-center gap-2 border-b border-rule py-1.5" data-could={row.id}>
							<span className="min-w-0 flex-1">
								{row.description} <span className="text-[12px] text-ink-2">{row.kind}</span>
							</span>
							{row.lacks.length > 0 && <Sign kind="look" size={12} />}
							<Button onClick={() => void takeIn(row.id)}>Take into this project</Button>
						</li>
					))}
				</ul>
			</section>
			<section aria-label="Which part serves">
				<h2 className="border-b border-ink pb-1 font-semibold">Which part serves</h2>
				{kinds.length === 0 && (
					<p className="mt-2 text-ink-2">Wherever the circuit asks for a part there is one that can.</p>
				)}
				<table className="w-full">
					<tbody>
						{kinds.map((row) => (
							<tr key={row.kind} className="border-b border-rule align-top [&>td]:py-1.5" data-serves={row.kind}>
								<td className="w-[150px] pr-3 text-ink-2">{row.kind}</td>
								<td>
									<select
										aria-label={`Part that serves as ${row.kind}`}
										className="w-full max-w-[420px] border border-line bg-card px-1.5 py-1"
										value={row.chosen ? row.taken : ""}
										onChange={(event) => void edit({ kind: "prefer-part", role: row.kind, part: event.target.value })}
									>
										<option value="">
											{row.chosen ? "the cheapest that can" : `${row.taken}: the cheapest that can`}
										</option>
										{row.chosen && <option value={row.taken}>{row.taken}: chosen here</option>}
										{row.others.map((other) => (
											<option key={other.id} value={other.id}>
												{other.id}, {(other.price_cents / 100).toFixed(2)} €
											</option>
										))}
									</select>
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</section>
		</div>
	);
}

const HERE: Record<string, string> = {
	same: "as it is on the shelf",
	changed: "the shelf has another version now",
	"not on the shelf": "not on this workshop's shelf; the project keeps it",
};

function OneTaken({ row, takeIn }: { row: Taken; takeIn: (id: string) => Promise<void> }) {
	const { edit } = useDesign();
	const { part } = row;
	return (
		<li className="border-b border-rule py-2" data-taken={part.id}>
			<div className="flex items-center gap-2">
				<span className="min-w-0 flex-1 font-medium">{part.description || part.id}</span>
				{row.here === "changed" && <Button onClick={() => void takeIn(part.id)}>Take the change</Button>}
				<Button weight="quiet" onClick={() => void edit({ kind: "leave-part", part: part.id })}>
					Leave it out
				</Button>
			</div>
			<p className="flex items-center gap-1.5 text-[12px] text-ink-2">
				<Sign kind={row.here === "same" ? "clear" : "look"} size={11} />
				{HERE[row.here]}; {row.used_for.length ? row.used_for.join(", ") : "nothing in the circuit uses it yet"}
			</p>
			{row.changed.slice(0, 5).map((change) => (
				<p key={change.field} className="pl-4 text-[12px]">
					{change.field}: <s className="text-ink-2">{change.before}</s> {change.after}
				</p>
			))}
		</li>
	);
}
