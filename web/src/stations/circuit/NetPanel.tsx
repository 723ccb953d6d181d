import { useState } from "react";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import type { Picked, View } from "./picked";

/** All nets, to be searched; the one that is picked opens with its pads and what can be done to it. */
export function NetList({ view, picked, pick }: { view: View; picked: Picked; pick: (picked: Picked) => void }) {
	const [words, setWords] = useState("");
	const sought = words.toLowerCase();
	const nets = view.nets.filter((n) => `${n.name} ${n.pads.map((p) => p[0]).join(" ")}`.toLowerCase().includes(sought));
	return (
		<section aria-label="Nets" className="flex min-h-0 flex-1 flex-col">
			<input
				aria-label="Search nets"
				placeholder="net or part"
				className="m-2 border border-line bg-card px-2 py-1"
				value={words}
				onChange={(event) => setWords(event.target.value)}
			/>
			<ul className="min-h-0 flex-1 overflow-y-auto">
				{nets.map((row) => {
					const open = picked?.kind === "net" && picked.name === row.name;
					return (
						<li key={row.name} className={`border-b border-rule px-3 py-1 ${open ? "bg-board/60" : ""}`}>
							<button
								type="button"
								aria-expanded={open}
								className="flex w-full justify-between gap-2 text-left"
								onClick={() => pick(open ? null : { kind: "net", name: row.name })}
							>
								<span className="figure min-w-0 break-all">{row.name}</span>
								<span className="figure text-ink-2">{row.pads.length}</span>
							</button>
							{open && (
								<>
									<p className="figure text-[12px] text-ink-2">
										{row.pads.map(([ref, pad]) => `${ref}.${pad}`).join("  ")}
									</p>
									{row.kind !== "ground" && <NetHands name={row.name} view={view} pick={pick} />}
								</>
							)}
						</li>
					);
				})}
			</ul>
		</section>
	);
}

/** Another name for a net, or another net to which it is joined. */
function NetHands({ name, view, pick }: { name: string; view: View; pick: (picked: Picked) => void }) {
	const { edit } = useDesign();
	const [to, setTo] = useState("");
	const there = view.nets.some((n) => n.name === to);
	const act = async () => {
		const change = there ? { what: "merge" as const, net: name, into: to } : { what: "rename" as const, net: name, to };
		if (await edit({ kind: "change-circuit", change })) pick({ kind: "net", name: to });
	};
	return (
		<form
			className="mt-1 flex gap-1"
			onSubmit={(event) => {
				event.preventDefault();
				void act();
			}}
		>
			<input
				aria-label={`New name for ${name}, or a net to join it to`}
				placeholder="new name, or a net"
				className="figure min-w-0 flex-1 border border-line bg-card px-1.5 py-0.5 text-[12px]"
				list="net-names"
				maxLength={40}
				value={to}
				onChange={(event) => setTo(event.target.value.toUpperCase().replace(/[^A-Z0-9_]/g, "_"))}
			/>
			<Button type="submit" className="!px-1.5 !py-0 text-[12px]" disabled={!to || to === name}>
				{there ? "Join" : "Rename"}
			</Button>
		</form>
	);
}
