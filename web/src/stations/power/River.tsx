import { useReckoner } from "../../app/reckoner";
import { current, drawnOf, inMode, lasting, layRiver, type Mode, type Plan, type Reach } from "./river";

const [FROM, WAY, RAIL, NAMES] = [8, 214, 404, 560] as const;
const [FROM_W, WAY_W, RAIL_W] = [150, 132, 14] as const;
const WIDTH = 800;

/** Sources on the left, loads on the right; how wide a band is says how much flows in the mode that is shown. */
export function River({ plan, mode, marked }: { plan: Plan; mode: Mode; marked: Set<string> }) {
	const { reaches, height } = layRiver(plan, mode);
	const fed = reaches.filter((reach) => marked.has(reach.rail.fed_by) && !reach.rail.parent);
	return (
		<svg
			viewBox={`0 0 ${WIDTH} ${height}`}
			className="w-full max-w-[1000px]"
			role="group"
			aria-label={`Flow of current, ${mode}`}
			data-testid="river"
			data-mode={mode}
		>
			<defs>
				<pattern id="flow" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
					<rect width="7" height="7" fill="var(--color-board)" />
					<line x1="0" y1="0" x2="0" y2="7" stroke="var(--color-copper)" strokeWidth="3" />
				</pattern>
			</defs>
			{reaches.map((reach) => (
				<OneRail key={reach.rail.name} reach={reach} plan={plan} mode={mode} marked={marked} />
			))}
			{fed.slice(1).map((reach, index) => (
				<Across key={reach.rail.name} from={fed[index]?.middle ?? reach.middle} to={reach.middle} />
			))}
		</svg>
	);
}

/** From one source into another one: what a finding says flows where it must not. */
function Across({ from, to }: { from: number; to: number }) {
	const x = FROM + 22;
	return (
		<g data-testid="across" stroke="var(--color-stop)" strokeWidth={3} fill="none">
			<path d={`M${x},${from + 36}L${x},${to - 38}`} strokeDasharray="8 4" />
			<path d={`M${x - 6},${to - 48}L${x},${to - 37}L${x + 6},${to - 48}`} />
		</g>
	);
}

function OneRail({ reach, plan, mode, marked }: { reach: Reach; plan: Plan; mode: Mode; marked: Set<string> }) {
	const { rail, middle, inWidth, chargeWidth, outWidth, branches } = reach;
	const charged = mode === "charge" ? rail.plugged : null;
	const reckon = useReckoner();
	const source = plan.sources.find((s) => s.name === rail.fed_by && !rail.parent);
	const on = marked.has(rail.name);
	const barTop = middle - Math.max(outWidth, 30) / 2;
	return (
		<g data-rail={rail.name} data-ma={inMode(rail.load, mode)} data-marked={on}>
			<Band from={FROM + FROM_W} to={WAY} y1={middle} y2={middle} width={inWidth} marked={on} />
			{charged && <Charge width={chargeWidth} cell={rail.fed_by} ma={charged.charge_ma} y={middle} />}
			<Band from={WAY + WAY_W} to={RAIL} y1={middle} y2={middle} width={outWidth} marked={on} />
			<Box
				x={FROM}
				y={middle}
				w={FROM_W}
				dashed={!source}
				marked={marked.has(rail.fed_by)}
				title={charged ? charged.port : before(source, rail.parent)}
				lines={
					charged
						? [`gives ${current(drawnOf(rail, mode))}`, `at most ${current(charged.limit_ma)}`]
						: said(source, mode, rail.joined)
				}
			/>
			<Box
				x={WAY}
				y={middle}
				w={WAY_W}
				wrong={!rail.made}
				title={rail.way.split(",")[0] ?? ""}
				lines={[
					`draws ${current(charged ? charged.play_ma : drawnOf(rail, mode))}`,
					rail.limit_ma ? `at most ${current(rail.limit_ma)}` : "",
				]}
			/>
			<rect x={RAIL} y={barTop} width={RAIL_W} height={Math.max(outWidth, 30)} fill="var(--color-ink)" />
			<text
				x={RAIL + RAIL_W / 2}
				y={barTop - 7}
				textAnchor="middle"
				fontSize="13"
				fontWeight="600"
				fill="var(--color-ink)"
			>
				{rail.name}, {rail.volts} V
			</text>
			<text
				x={RAIL + RAIL_W / 2}
				y={barTop + Math.max(outWidth, 30) + 15}
				textAnchor="middle"
				fontSize="12"
				className="figure"
				fill="var(--color-ink-2)"
			>
				{current(inMode(rail.load, mode))}
			</text>
			{branches.map((branch) => (
				<g key={branch.name} data-load={branch.name} data-ma={branch.ma}>
					<Band
						from={RAIL + RAIL_W}
						to={NAMES - 6}
						y1={branch.from}
						y2={branch.row}
						width={branch.width}
						marked={marked.has(branch.name)}
					/>
					<g
						role="img"
						aria-label={`${branch.name}, ${current(branch.ma)}: ${branch.origin}`}
						onPointerEnter={() => reckon(`${branch.name}, ${current(branch.ma)}: ${branch.origin}`)}
					>
						<rect x={NAMES - 4} y={branch.row - 12} width={WIDTH - NAMES} height={24} fill="transparent" />
						<text x={NAMES} y={branch.row + 4.5} fontSize="13" fill="var(--color-ink)">
							{branch.rail ? `rail ${branch.name}` : branch.name}
						</text>
						<text
							x={WIDTH - 8}
							y={branch.row + 4.5}
							fontSize="13"
							textAnchor="end"
							className="figure"
							fill={branch.ma ? "var(--color-ink)" : "var(--color-ink-2)"}
						>
							{current(branch.ma)}
						</text>
					</g>
				</g>
			))}
		</g>
	);
}

type ChargeProps = { y: number; width: number; cell: string; ma: number };

/** What a port gives beside the way to the rail: down into the cell. */
function Charge({ y, width, cell, ma }: ChargeProps) {
	const [left, top, foot] = [FROM + 10, y + 36, y + 58];
	const right = left + width;
	return (
		<g data-testid="charge">
			<path
				d={`M${left},${top}L${right},${top}L${right},${foot - 8}L${(left + right) / 2},${foot}L${left},${foot - 8}Z`}
				fill="url(#flow)"
				stroke="var(--color-copper)"
				strokeWidth={0.8}
			/>
			<text x={right + 8} y={foot - 5} fontSize="12" fill="var(--color-ink)">
				{current(ma)} into {cell}
			</text>
		</g>
	);
}

type BandProps = { from: number; to: number; y1: number; y2: number; width: number; marked: boolean };

function Band({ from, to, y1, y2, width, marked }: BandProps) {
	if (width === 0)
		return (
			<path
				d={`M${from},${y1}C${(from + to) / 2},${y1} ${(from + to) / 2},${y2} ${to},${y2}`}
				fill="none"
				stroke={marked ? "var(--color-stop)" : "var(--color-line)"}
				strokeWidth={marked ? 2 : 1}
				strokeDasharray="3 4"
			/>
		);
	const half = width / 2;
	const mid = (from + to) / 2;
	return (
		<path
			d={`M${from},${y1 - half}C${mid},${y1 - half} ${mid},${y2 - half} ${to},${y2 - half}L${to},${y2 + half}C${mid},${y2 + half} ${mid},${y1 + half} ${from},${y1 + half}Z`}
			fill="url(#flow)"
			stroke={marked ? "var(--color-stop)" : "var(--color-copper)"}
			strokeWidth={marked ? 2.5 : 0.8}
		/>
	);
}

type BoxProps = {
	x: number;
	y: number;
	w: number;
	title: string;
	lines: string[];
	dashed?: boolean;
	wrong?: boolean;
	marked?: boolean;
};

function Box({ x, y, w, title, lines, dashed = false, wrong = false, marked = false }: BoxProps) {
	const shown = lines.filter(Boolean);
	const first = y - (shown.length * 17) / 2 + 4;
	return (
		<g>
			<rect
				x={x}
				y={y - 36}
				width={w}
				height={72}
				rx={3}
				fill="var(--color-card)"
				stroke={wrong || marked ? "var(--color-stop)" : "var(--color-ink)"}
				strokeWidth={wrong || marked ? 2.5 : 1.2}
				strokeDasharray={dashed ? "5 4" : undefined}
			/>
			<text x={x + 9} y={first} fontSize="13" fontWeight="600" fill="var(--color-ink)">
				{title}
			</text>
			{shown.map((line, index) => (
				<text key={line} x={x + 9} y={first + 17 * (index + 1)} fontSize="12" fill="var(--color-ink-2)">
					{line}
				</text>
			))}
		</g>
	);
}

type Source = Plan["sources"][number];

function before(source: Source | undefined, parent: string): string {
	if (source) return source.name;
	return parent ? `rail ${parent}` : "no source";
}

function said(source: Source | undefined, mode: Mode, joined: string[]): string[] {
	if (!source) return [];
	const volts = source.stays
		? `${source.usual_v.toFixed(1)} V`
		: `${source.empty_v.toFixed(1)} to ${source.fresh_v.toFixed(1)} V, ${source.capacity_mah} mAh`;
	const hours = source.hours[mode];
	const both = joined.length ? [`or ${joined.join(", ")}`] : [];
	return [volts, ...both, hours ? `lasts ${lasting(hours)}` : `gives ${current(source.most_ma)}`];
}
