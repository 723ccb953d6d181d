import type { Schemas } from "../../api/client";
import { useReckoner } from "../../app/reckoner";
import { useDesign } from "../../document/useDesign";
import { BallDrawing } from "./BallDrawing";
import { ballGrid, pinSpot } from "./layout";

type View = Schemas["PinsView"];
type Pin = Schemas["ChipPinView"];
const FILL: Record<string, string> = {
	supply: "#c9a39b",
	ground: "#8d8676",
	reset: "#cdbfe0",
	boot: "#cdbfe0",
	regulator: "#c9a39b",
};

/** The package from above with every pin, what it carries, and, for the picked signal, where else it could go. */
export function ChipDrawing({
	view,
	signal,
	pick,
}: {
	view: View;
	signal: string | null;
	pick: (signal: string | null) => void;
}) {
	const reckon = useReckoner();
	const { edit } = useDesign();
	const count = view.pins.length;
	const sides = view.sides === 2 ? 2 : 4;
	const body = { w: 300, h: sides === 2 ? 380 : 300 };
	const able = new Set(view.signals.find((s) => s.signal === signal)?.pins ?? []);
	const press = (pin: Pin) => {
		if (signal && able.has(pin.number)) void edit({ kind: "lock-pin", signal, pin: pin.number }).then(() => pick(null));
		else pick(pin.signal || null);
	};
	const balls = ballGrid(view.pins.map((p) => p.number));
	if (balls)
		return <BallDrawing view={view} balls={balls} able={able} signal={signal} press={press} describe={describe} />;
	return (
		<div className="min-w-0 flex-1 p-2">
			<svg
				viewBox={`-150 -160 ${body.w + 300} ${body.h + 320}`}
				className="h-full w-full"
				role="group"
				aria-label={`${view.chip} from above`}
			>
				<title>{view.chip} from above</title>
				<rect width={body.w} height={body.h} rx={6} fill="#38352f" />
				<circle cx={16} cy={16} r={6} fill="none" stroke="var(--color-line)" strokeWidth={2} />
				<text x={body.w / 2} y={body.h / 2 - 4} textAnchor="middle" fill="#f7f4ec" fontSize={17} fontWeight={600}>
					{view.chip}
				</text>
				<text x={body.w / 2} y={body.h / 2 + 18} textAnchor="middle" fill="#c9c1ae" fontSize={12}>
					{signal ? `press a ringed pin to lock ${signal.replace("button:", "")}` : view.package}
				</text>
				{view.pins.map((pin, index) => (
					<PinMark
						key={pin.number}
						pin={pin}
						spot={pinSpot(index, count, sides, body)}
						pitch={(sides === 2 ? body.h : body.w) / Math.ceil(count / sides)}
						able={able.has(pin.number)}
						picked={signal !== null && pin.signal === signal}
						over={() => reckon(describe(pin))}
						press={() => press(pin)}
					/>
				))}
			</svg>
		</div>
	);
}

function describe(pin: Pin): string {
	const could = (pin.could ?? []).slice(0, 6).join(", ");
	return `pin ${pin.number} ${pin.name}: ${pin.title || pin.kind}${pin.function ? ` as ${pin.function}` : ""}${could ? `; could be ${could}` : ""}`;
}

type MarkProps = {
	pin: Pin;
	spot: ReturnType<typeof pinSpot>;
	pitch: number;
	able: boolean;
	picked: boolean;
	over: () => void;
	press: () => void;
};

function PinMark({ pin, spot, pitch, able, picked, over, press }: MarkProps) {
	const turn = { left: 180, right: 0, top: -90, bottom: 90 }[spot.side];
	const flip = spot.side === "left";
	const thick = Math.min(pitch * 0.62, 13);
	const words = pin.title.replace("button ", "").replace("programming ", "prog. ").replace("indicator ", "");
	const size = Math.min(12, pitch * 0.8);
	return (
		<g
			transform={`translate(${spot.x} ${spot.y}) rotate(${turn})`}
			onPointerEnter={over}
			onClick={press}
			onKeyDown={(event) => event.key === "Enter" && press()}
			tabIndex={pin.kind === "port" ? 0 : -1}
			role="button"
			aria-label={describe(pin)}
			data-pin={pin.number}
			data-signal={pin.signal}
			className="cursor-pointer"
			onFocus={over}
		>
			<rect
				x={0}
				y={-thick / 2}
				width={26}
				height={thick}
				fill={pin.signal ? "var(--color-copper)" : (FILL[pin.kind] ?? "var(--color-board)")}
				stroke="var(--color-ink)"
				strokeWidth={picked ? 2.4 : 0.7}
			/>
			{able && (
				<rect
					x={-2}
					y={-thick / 2 - 2}
					width={30}
					height={thick + 4}
					fill="none"
					stroke="var(--color-patina)"
					strokeWidth={2}
					strokeDasharray="4 2"
				/>
			)}
			<g transform={flip ? "rotate(180)" : ""}>
				<text
					x={flip ? -13 : 13}
					y={thick * 0.3}
					textAnchor="middle"
					fontSize={Math.min(9.5, thick * 0.85)}
					fill={pin.signal || pin.kind === "ground" ? "#fff" : "var(--color-ink)"}
					className="figure"
				>
					{pin.number}
				</text>
				<text
					x={flip ? -32 : 32}
					y={size * 0.33}
					textAnchor={flip ? "end" : "start"}
					fontSize={size}
					fill="var(--color-ink)"
					fontWeight={words ? 600 : 400}
					fillOpacity={words ? 1 : 0.62}
				>
					{words || shortName(pin.name)}
					{pin.locked ? " (locked)" : ""}
				</text>
			</g>
		</g>
	);
}

function shortName(name: string): string {
	return name.split(/[-\s(]/)[0] ?? name;
}
