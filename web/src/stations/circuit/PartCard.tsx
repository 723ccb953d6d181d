import { useState } from "react";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";
import { type Component, type Picked, titleOf, type View } from "./picked";

/** A part that was pressed: what it is for, the figures behind it, its pins with their nets, and what can be done to a pin. */
export function PartCard({
	component,
	view,
	pick,
}: {
	component: Component;
	view: View;
	pick: (picked: Picked) => void;
}) {
	const [pin, setPin] = useState<string | null>(null);
	const own = view.workings.filter((w) => w.id === component.working);
	const thing = component.thing
		? view.workings.filter((w) => w.id !== component.working && w.id.startsWith(`${component.thing}.`))
		: [];
	const several = new Set(view.components.map((c) => c.board)).size > 1;
	return (
		<section
			aria-label={`Part ${component.ref}`}
			className="min-h-0 flex-1 overflow-y-auto p-3"
			data-testid="part-card"
		>
			<div className="flex items-start justify-between gap-2">
				<h2 className="font-semibold">{titleOf(component)}</h2>
				<Button weight="quiet" aria-label="Back to the nets" onClick={() => pick(null)}>
					Nets
				</Button>
			</div>
			<p>
				{component.purpose}
				{several && <span className="text-ink-2"> on {component.board}</span>}
			</p>
			<p className="mt-1 text-[12px] text-ink-2">
				{component.description}; {component.size}. {component.evidence}.
			</p>
			<FigureRows workings={own} />
			{thing.length > 0 && <p className="mt-2 text-[12px] text-ink-2">figures of {component.thing}</p>}
			<FigureRows workings={thing} />
			<table className="mt-2 w-full text-[12px]">
				<thead>
					<tr className="border-b border-ink text-left text-ink-2 [&>th]:pr-2 [&>th]:font-normal">
						<th>pin</th>
						<th>name</th>
						<th>net</th>
					</tr>
				</thead>
				<tbody>
					{component.pins.map((row) => (
						<tr key={row.pad} className="border-b border-rule align-top">
							<td className="py-0.5 pr-1">
								<button
									type="button"
									className="figure border-b border-dotted border-ink-2"
									aria-label={`Change pin ${row.pad}`}
									aria-expanded={pin === row.pad}
									onClick={() => setPin(pin === row.pad ? null : row.pad)}
								>
									{row.pad}
								</button>
							</td>
							<td className="py-0.5 pr-1">{row.name}</td>
							<td className="figure py-0.5 break-all">
								{row.net ? (
									<button
										type="button"
										className="text-left hover:underline"
										onClick={() => pick({ kind: "net", name: row.net })}
									>
										{row.net}
									</button>
								) : (
									<span className="text-ink-2">open</span>
								)}
								{pin === row.pad && (
									<PinHands role={component.role} pad={row.pad} net={row.net} done={() => setPin(null)} />
								)}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</section>
	);
}

function FigureRows({ workings }: { workings: View["workings"] }) {
	return workings.map((working) => (
		<p key={working.id} className="mt-1 flex flex-wrap justify-between gap-x-2 border-t border-rule pt-1">
			<span>{working.title}</span>
			<span className="ml-auto">
				<Figure working={working} />
			</span>
		</p>
	));
}

/** A pin put on another net, or cut off. */
function PinHands({ role, pad, net, done }: { role: string; pad: string; net: string; done: () => void }) {
	const { edit } = useDesign();
	const [to, setTo] = useState("");
	const act = async (change: { what: "connect"; net: string } | { what: "cut" }) => {
		if (await edit({ kind: "change-circuit", change: { ...change, role, pad } })) done();
	};
	return (
		<form
			className="mt-1 flex flex-wrap gap-1"
			onSubmit={(event) => {
				event.preventDefault();
				void act({ what: "connect", net: to });
			}}
		>
			<input
				aria-label={`Net for pin ${pad}`}
				placeholder="net"
				className="figure w-full border border-line bg-card px-1.5 py-0.5"
				list="net-names"
				maxLength={40}
				value={to}
				onChange={(event) => setTo(event.target.value.toUpperCase().replace(/[^A-Z0-9_]/g, "_"))}
			/>
			<Button type="submit" className="!px-1.5 !py-0 text-[12px]" disabled={!to || to === net}>
				Connect
			</Button>
			{net && (
				<Button className="!px-1.5 !py-0 text-[12px]" onClick={() => void act({ what: "cut" })}>
					Cut
				</Button>
			)}
		</form>
	);
}
