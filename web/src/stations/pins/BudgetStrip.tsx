import type { Schemas, Working } from "../../api/client";
import { Figure } from "../../design/Figure";

/** How many pins are used, reserved and spare; a title tells the same by kind. */
export function BudgetStrip({ view }: { view: Schemas["PinsView"] }) {
	const used = view.pins.filter((p) => p.signal).length;
	const parts: [string, number, string][] = [
		["used", used, "var(--color-copper)"],
		["reserved", view.reserved, "#8d8676"],
		["spare", Math.max(0, view.free), "var(--color-board)"],
	];
	const kinds = view.budget.map((row) => `${row.title}: ${row.shown}`).join("\n");
	const worked: Record<string, string> = { used: "pins.used", spare: "pins.free" };
	return (
		<div className="flex items-center gap-3 text-[12px]" data-testid="budget" title={kinds}>
			<div className="flex h-[11px] w-[150px] border border-ink">
				{parts.map(([name, count, colour]) => (
					<div
						key={name}
						style={{ width: `${(100 * count) / view.pins.length}%`, background: colour }}
						className="border-r border-ink last:border-0"
					/>
				))}
			</div>
			{parts.map(([name, count]) => (
				<span key={name} className="whitespace-nowrap">
					<Count count={count} working={view.workings.find((w) => w.id === worked[name])} />{" "}
					<span className="text-ink-2">{name}</span>
				</span>
			))}
			{view.free < 0 && <span className="font-medium text-stop">{-view.free} too many</span>}
			{view.budget
				.filter((row) => row.id === "pins.left.analogue channels")
				.map((row) => (
					<span key={row.id} className="whitespace-nowrap">
						<Figure working={row} unit={false} /> <span className="text-ink-2">analogue left</span>
					</span>
				))}
		</div>
	);
}

function Count({ count, working }: { count: number; working: Working | undefined }) {
	return working ? <Figure working={working} unit={false} /> : <span className="figure">{count}</span>;
}
