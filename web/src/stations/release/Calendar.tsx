import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { dayOf, span } from "./days";

type Booked = Schemas["Booked"];
const [WIDE, ROW] = [560, 30];

/** Backwards from the day on which the devices are wanted: what takes how long, what must be ordered today. */
export function Calendar() {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "calendar", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/calendar", { params: { path: { project_id: head.project } } })),
	});
	const view = query.data;
	if (!view) return null;
	const plan = view.calendar;
	const { from, days } = span(plan);
	const x = (day: string) => ((dayOf(day) - from) / days) * WIDE;
	return (
		<section aria-label="Calendar" className="border-t border-rule px-4 py-3">
			<h2 className="font-semibold">Calendar to {plan.wanted}</h2>
			<p className="mt-1 flex items-center gap-1.5" data-testid="in-time">
				<Sign kind={plan.in_time ? "clear" : "stop"} size={12} />
				Begun today, the devices are there on {plan.ready}
				{plan.in_time ? "." : `, too late for ${plan.wanted}: take quicker shipping, fewer devices, or another day.`}
			</p>
			{plan.order_today.length > 0 && (
				<p className="mt-1 flex items-center gap-1.5 font-medium" data-testid="order-today">
					<Sign kind="look" size={12} /> To be ordered today: {plan.order_today.join(" and ")}
				</p>
			)}
			<svg
				viewBox={`-4 0 ${WIDE + 8} ${ROW * plan.legs.length + 26}`}
				className="mt-2 w-full max-w-[760px]"
				role="img"
				aria-label="What takes how long"
			>
				{plan.legs.map((leg, index) => (
					<Leg key={leg.name} leg={leg} y={index * ROW} x={x} />
				))}
				<line
					x1={x(plan.wanted)}
					x2={x(plan.wanted)}
					y1={0}
					y2={ROW * plan.legs.length}
					stroke="var(--color-stop)"
					strokeDasharray="4 3"
				/>
				<text
					x={x(plan.today)}
					y={ROW * plan.legs.length + 18}
					fontSize={12}
					className="figure"
					fill="var(--color-ink-2)"
				>
					{plan.today}
				</text>
				<text
					x={WIDE}
					y={ROW * plan.legs.length + 18}
					textAnchor="end"
					fontSize={12}
					className="figure"
					fill="var(--color-ink-2)"
				>
					{plan.wanted > plan.ready ? plan.wanted : plan.ready}
				</text>
			</svg>
			<p className="text-[12px] text-ink-2">
				Solid: begun today. Outlined: as late as it can be. Weekends and holidays of the house (invented) are left out.{" "}
				Soldering takes <Figure working={view.soldering} unit={false} />.
			</p>
		</section>
	);
}

function Leg({ leg, y, x }: { leg: Booked; y: number; x: (day: string) => number }) {
	const wide = (start: string, end: string) => Math.max(x(end) - x(start), 2);
	return (
		<g transform={`translate(0 ${y})`}>
			<rect
				x={x(leg.earliest_start)}
				y={14}
				width={wide(leg.earliest_start, leg.earliest_end)}
				height={9}
				fill="var(--color-patina)"
			/>
			<rect
				x={x(leg.latest_start)}
				y={14}
				width={wide(leg.latest_start, leg.latest_end)}
				height={9}
				fill="none"
				stroke="var(--color-ink)"
				strokeWidth={1}
			/>
			<text x={0} y={11} fontSize={12} fill="var(--color-ink)">
				{leg.words}: {leg.slack_days < 0 ? `${-leg.slack_days} days late` : `${leg.slack_days} days left`}
				{leg.ordered ? `, ordered by ${leg.latest_start}` : ""}
			</text>
		</g>
	);
}
