import type { Schemas } from "../../api/client";
import type { Hand } from "./looks";

type Arc = Schemas["ReachArc"];

/** The comfortable zone of both thumbs, clipped to the device. */
export function ReachArcs({ arcs, hand, h, outline }: { arcs: Arc[]; hand: Hand; h: number; outline: string }) {
	if (hand === "none") return null;
	return (
		<g data-testid="reach" pointerEvents="none">
			<clipPath id="device-outline">
				<path d={outline} />
			</clipPath>
			<g clipPath="url(#device-outline)">
				{arcs
					.filter((arc) => arc.hand === hand)
					.map((arc) => (
						<g key={arc.side} fill="none" stroke="var(--color-patina)" strokeWidth={0.3}>
							<circle
								cx={arc.x_mm}
								cy={h - arc.y_mm}
								r={(arc.near_mm + arc.far_mm) / 2}
								strokeWidth={arc.far_mm - arc.near_mm}
								strokeOpacity={0.09}
							/>
							<circle cx={arc.x_mm} cy={h - arc.y_mm} r={arc.far_mm} strokeDasharray="1.6 1" />
							<circle cx={arc.x_mm} cy={h - arc.y_mm} r={arc.near_mm} strokeDasharray="0.6 1" />
						</g>
					))}
			</g>
		</g>
	);
}
