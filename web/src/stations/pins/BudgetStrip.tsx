import type { Schemas } from "../../api/client";

/** How many pins are used, reserved and spare; a title tells the same by kind. */
export function BudgetStrip({ view }: { view: Schemas["PinsView"] }) {
	const used = view.pins.filter((p) => p.signal).length;
	const parts: [string, number, string][] = [
		["used", used, "var(--color-copper)"],
		["reserved", view.reserved, "#8d8676"],
		["spare", Math.max(0, view.free), "var(--color-board)"],
	];
	const kinds = view.budget.map((b) => `${b.kind}: ${b.used} of ${b.able} used, ${b.left} left`).join("\n");
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
					<span className="figure">{count}</span> <span className="text-ink-2">{name}</span>
				</span>
			))}
			{view.free < 0 && <span className="font-medium text-stop">{-view.free} too many</span>}
			{view.budget
				.filter((b) => b.kind === "analogue channels")
				.map((b) => (
					<span key={b.kind} className="whitespace-nowrap">
						<span className="figure">{b.left}</span> <span className="text-ink-2">analogue left</span>
					</span>
				))}
		</div>
	);
}
