import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

type Protection = Schemas["Protection"];
const LEAST = 8;

/** What protects the device, each with what it keeps off and its price; leaving one out asks for the reason. */
export function Protections() {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "protections", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/protections", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const rows = query.data ?? [];
	if (rows.length === 0) return null;
	return (
		<section aria-label="Protections" className="mt-4" data-testid="protections">
			<h2 className="border-b border-ink pb-1 font-semibold">What protects it</h2>
			<ul>
				{rows.map((row) => (
					<Row key={`${row.role}${row.standing}`} row={row} />
				))}
			</ul>
		</section>
	);
}

function Row({ row }: { row: Protection }) {
	const { edit } = useDesign();
	const [asking, setAsking] = useState(false);
	const [reason, setReason] = useState("");
	const left = row.standing === "left out";
	const leave = async () => {
		const change = { what: "leave out" as const, role: row.role, reason: reason.trim() };
		if (await edit({ kind: "change-circuit", change })) setAsking(false);
	};
	return (
		<li className="border-t border-rule py-1 text-[12px]" data-protection={row.role}>
			<div className="flex items-baseline gap-3">
				<span className="min-w-0 flex-1">
					<span className={`font-medium ${left ? "text-warn" : ""}`}>{row.title}</span>{" "}
					<span className="text-ink-2">
						{left ? "left out; it would keep off" : "against"} {row.against}
					</span>
				</span>
				<span className="text-ink-2">{left ? "" : row.refs?.length ? row.refs.join(", ") : "comes with it"}</span>
				<span className="figure w-[64px] text-right whitespace-nowrap">
					{row.price_cents ? `${(row.price_cents / 100).toFixed(2)} €` : ""}
				</span>
				<span className="w-[72px] text-right">
					{left ? (
						<Button
							weight="quiet"
							onClick={() => void edit({ kind: "drop-circuit-change", index: row.change ?? 0 })}
							aria-label={`Put back ${row.title}`}
						>
							Put back
						</Button>
					) : (
						row.standing === "on the board" && (
							<Button
								weight="quiet"
								onClick={() => setAsking(!asking)}
								aria-expanded={asking}
								aria-label={`Leave out ${row.title}`}
							>
								{asking ? "Keep it" : "Leave out"}
							</Button>
						)
					)}
				</span>
			</div>
			{left && <p className="mt-0.5">{row.reason}</p>}
			{asking && (
				<form
					className="mt-1 flex gap-2"
					onSubmit={(event) => {
						event.preventDefault();
						if (reason.trim().length >= LEAST) void leave();
					}}
				>
					<input
						aria-label={`Why ${row.title} may be left out`}
						placeholder="why the device does without it"
						className="min-w-0 flex-1 border border-line bg-card px-1.5 py-0.5"
						maxLength={200}
						value={reason}
						onChange={(event) => setReason(event.target.value)}
					/>
					<Button className="!py-0" type="submit" disabled={reason.trim().length < LEAST}>
						Leave it out
					</Button>
				</form>
			)}
		</li>
	);
}
