import { type KitLine, type Line, priceOf } from "./drawers";

/** What is still to buy for all devices: the parts with their spares, and what of the kit is missing. */
export function ToBuy({ lines, kit }: { lines: Line[]; kit: KitLine[] }) {
	const missing = kit.filter((line) => line.state === "missing");
	const { cents, unknown } = priceOf(lines);
	return (
		<div className="min-h-0 flex-1 overflow-y-auto p-4" data-testid="to-buy">
			<p className="mb-3">
				<span className="figure">{lines.length}</span> <span className="text-ink-2">parts for about</span>{" "}
				<span className="figure">{(cents / 100).toFixed(2)} €</span>{" "}
				<span className="text-ink-2">
					with spares{unknown ? `, and ${unknown} whose price is not known` : ""}; prices are simulated.{" "}
				</span>
				<span className="figure">{missing.length}</span> <span className="text-ink-2">of the kit are missing.</span>
			</p>
			<ol className="grid grid-cols-[repeat(auto-fill,minmax(330px,1fr))] gap-x-6">
				{lines.map((line) => (
					<Slip
						key={`${line.part} ${line.value}`}
						count={line.to_buy}
						what={[line.what, line.what.includes(line.value) ? "" : line.value].filter(Boolean).join(", ")}
						more={`${line.size}; ${line.count} a device, ${line.spares} to spare`}
					/>
				))}
				{missing.map((line) => (
					<Slip key={line.what} count={line.count} what={line.what} more={line.why} />
				))}
			</ol>
		</div>
	);
}

function Slip({ count, what, more }: { count: number; what: string; more: string }) {
	return (
		<li className="flex gap-3 border-b border-rule py-1.5">
			<span className="figure w-[56px] shrink-0 text-right font-medium">{count} x</span>
			<span>
				{what}
				<span className="block text-[12px] text-ink-2">{more}</span>
			</span>
		</li>
	);
}
