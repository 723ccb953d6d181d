/** A day as a number of days. */
export const dayOf = (day: string) => Math.round(Date.parse(`${day}T00:00:00Z`) / 86_400_000);

type Legs = { today: string; wanted: string; ready: string; legs: readonly { latest_start: string }[] };

/** From the first to the last day that a calendar shows. */
export function span(plan: Legs): { from: number; days: number } {
	const from = Math.min(dayOf(plan.today), ...plan.legs.map((leg) => dayOf(leg.latest_start)));
	const to = Math.max(dayOf(plan.wanted), dayOf(plan.ready));
	return { from, days: Math.max(1, to - from) };
}
