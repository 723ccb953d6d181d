import type { Schemas } from "../../api/client";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import type { Unit } from "./useBuild";

type Key = Unit["keys"][number];
type Stick = Unit["sticks"][number];
const SIDE = 132;
const LEAST_SPAN = 0.6;

/** The last tests of keys and sticks: every key at its place on the device, every stick with the way around its rim. */
export function ControlTests({ unit }: { unit: Unit }) {
	const { head } = useDesign();
	const boards = head.boards.filter((board) => unit.keys.some((key) => key.board === board.name));
	if (!unit.keys.length && !unit.sticks.length) return null;
	return (
		<section aria-label="Tests of the controls" className="mt-4">
			<h3 className="border-b border-ink pb-1 font-semibold">Controls</h3>
			<div className="mt-2 flex flex-wrap items-start gap-4">
				{boards.map((board) => (
					<KeysDrawn key={board.name} board={board} keys={unit.keys.filter((key) => key.board === board.name)} />
				))}
				{unit.sticks.map((stick) => (
					<StickDrawn key={stick.stick} stick={stick} />
				))}
			</div>
		</section>
	);
}

function KeysDrawn({ board, keys }: { board: Schemas["BoardOutline"]; keys: Key[] }) {
	const xs = board.outline_mm.map(([x]) => x);
	const ys = board.outline_mm.map(([, y]) => y);
	const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const wrong = keys.filter((key) => !key.good);
	return (
		<figure className="w-[232px]">
			<svg
				viewBox={`${left - 1} ${-top - 1} ${right - left + 2} ${top - bottom + 2}`}
				className="max-h-[190px] w-full"
				role="img"
				aria-label={`${keys.length} keys at their places, ${wrong.length} wrong`}
				data-testid="keys-drawn"
				data-wrong={wrong.length}
			>
				<path
					d={`M${board.outline_mm.map(([x, y]) => `${x},${-y}`).join("L")}Z`}
					fill="var(--color-board)"
					stroke="var(--color-line)"
					strokeWidth={0.3}
				/>
				{keys.map((key) => (
					<g key={key.key} transform={`translate(${key.x_mm} ${-key.y_mm})`}>
						<title>{`${key.words}: ${key.reads.join(", ") || "nothing"}`}</title>
						<circle
							r={2.6}
							fill={key.good ? "var(--color-patina)" : "var(--color-card)"}
							stroke={key.good ? "var(--color-patina)" : "var(--color-stop)"}
							strokeWidth={0.7}
						/>
						{key.good ? (
							<path d="M-1.2 0 L-0.3 1 L1.3 -1.1" fill="none" stroke="var(--color-card)" strokeWidth={0.6} />
						) : (
							<path d="M-1.1 -1.1 L1.1 1.1 M1.1 -1.1 L-1.1 1.1" stroke="var(--color-stop)" strokeWidth={0.7} />
						)}
					</g>
				))}
			</svg>
			<figcaption className="text-[12px] text-ink-2">
				{wrong.length === 0
					? `All ${keys.length} keys read, each alone.`
					: wrong.slice(0, 4).map((key) => (
							<span key={key.key} className="flex items-start gap-1.5">
								<Sign kind="stop" size={11} /> {key.words} reads as {key.reads.join(", ") || "nothing"}
							</span>
						))}
			</figcaption>
		</figure>
	);
}

function StickDrawn({ stick }: { stick: Stick }) {
	const at = (code: number) => (code / stick.full) * SIDE;
	const up = (code: number) => SIDE - at(code);
	const good = stick.faults.length === 0;
	return (
		<figure className="w-[150px]" data-testid="stick-drawn" data-good={good}>
			<svg width={SIDE} height={SIDE} role="img" aria-label={`${stick.stick}: the way around its rim in codes`}>
				<rect width={SIDE} height={SIDE} fill="var(--color-card)" stroke="var(--color-line)" />
				<path
					d={`M${SIDE / 2} 0V${SIDE}M0 ${SIDE / 2}H${SIDE}`}
					stroke="var(--color-rule)"
					strokeDasharray="3 3"
					fill="none"
				/>
				<circle
					cx={at(stick.x.centre)}
					cy={up(stick.y.centre)}
					r={(LEAST_SPAN / 2) * SIDE}
					fill="none"
					stroke="var(--color-line)"
				/>
				<polyline
					points={stick.path.map(([x, y]) => `${at(x ?? 0)},${up(y ?? 0)}`).join(" ")}
					fill="none"
					stroke={good ? "var(--color-patina)" : "var(--color-stop)"}
					strokeWidth={1.4}
				/>
				<circle
					cx={at(stick.x.centre)}
					cy={up(stick.y.centre)}
					r={3}
					fill={good ? "var(--color-patina)" : "var(--color-stop)"}
				/>
			</svg>
			<figcaption className="text-[12px]">
				<span className="font-medium">{stick.stick}</span>
				<span className="figure block text-ink-2">
					x {stick.x.low}–{stick.x.high}, {stick.x.centre.toFixed(0)} ± {stick.x.noise.toFixed(0)}
				</span>
				<span className="figure block text-ink-2">
					y {stick.y.low}–{stick.y.high}, {stick.y.centre.toFixed(0)} ± {stick.y.noise.toFixed(0)}
				</span>
				<span className="block text-ink-2">
					codes from and to, at rest; reach differs by {(100 * stick.uneven).toFixed(0)} % around
				</span>
				{stick.faults.map((words) => (
					<span key={words} className="flex items-start gap-1.5">
						<Sign kind="stop" size={11} /> {words}
					</span>
				))}
				<details>
					<summary className="cursor-pointer text-patina">for the firmware</summary>
					<pre className="overflow-x-auto text-[11px]">{stick.firmware.join("\n")}</pre>
				</details>
			</figcaption>
		</figure>
	);
}
