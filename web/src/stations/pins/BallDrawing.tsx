import type { Schemas } from "../../api/client";
import { useReckoner } from "../../app/reckoner";
import type { Ball } from "./layout";

type View = Schemas["PinsView"];
type Pin = Schemas["ChipPinView"];
const PITCH = 46;

/** A package with balls, from above: each ball with what it carries; the reckoner tells the rest. */
export function BallDrawing({
	view,
	balls,
	able,
	signal,
	press,
	describe,
}: {
	view: View;
	balls: Map<string, Ball>;
	able: Set<string>;
	signal: string | null;
	press: (pin: Pin) => void;
	describe: (pin: Pin) => string;
}) {
	const reckon = useReckoner();
	const places = [...balls.values()];
	const w = (Math.max(...places.map((p) => p.x)) + 1) * PITCH;
	const h = (Math.max(...places.map((p) => p.y)) + 1) * PITCH;
	return (
		<div className="min-w-0 flex-1 p-2">
			<svg
				viewBox={`-8 -26 ${w + 16} ${h + 34}`}
				className="h-full w-full"
				role="group"
				aria-label={`${view.chip} from above`}
			>
				<title>{view.chip} from above</title>
				<text x={w / 2} y={-8} textAnchor="middle" fontSize={13} fill="var(--color-ink-2)">
					{view.chip}, {view.package}, seen from above, balls below
				</text>
				<rect width={w} height={h} rx={5} fill="#38352f" />
				{view.pins.map((pin) => {
					const ball = balls.get(pin.number);
					if (!ball) return null;
					const words = pin.title
						? pin.title.replace("button ", "").replace("programming ", "prog. ")
						: pin.name.split(/[-\s(/]/)[0];
					return (
						<g
							key={pin.number}
							transform={`translate(${(ball.x + 0.5) * PITCH} ${(ball.y + 0.5) * PITCH})`}
							tabIndex={pin.kind === "port" ? 0 : -1}
							role="button"
							aria-label={describe(pin)}
							data-pin={pin.number}
							data-signal={pin.signal}
							className="cursor-pointer"
							onPointerEnter={() => reckon(describe(pin))}
							onFocus={() => reckon(describe(pin))}
							onClick={() => press(pin)}
							onKeyDown={(event) => event.key === "Enter" && press(pin)}
						>
							<circle
								r={13}
								fill={pin.signal ? "var(--color-copper)" : pin.kind === "port" ? "var(--color-board)" : "#8d8676"}
								stroke={able.has(pin.number) ? "var(--color-patina)" : "var(--color-ink)"}
								strokeWidth={able.has(pin.number) ? 3 : signal && pin.signal === signal ? 2.4 : 0.8}
								strokeDasharray={able.has(pin.number) ? "4 2" : undefined}
							/>
							<text
								y={3}
								textAnchor="middle"
								fontSize={9}
								className="figure"
								fill={pin.signal ? "#fff" : "var(--color-ink)"}
							>
								{pin.number}
							</text>
							<text y={21} textAnchor="middle" fontSize={6.6} fill="#f7f4ec" fontWeight={pin.signal ? 600 : 400}>
								{(words ?? "").slice(0, 13)}
								{pin.locked ? " (kept)" : ""}
							</text>
						</g>
					);
				})}
			</svg>
		</div>
	);
}
