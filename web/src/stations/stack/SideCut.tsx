import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { client, take } from "../../api/client";
import { useReckoner } from "../../app/reckoner";
import { useSize } from "../../design/useSize";
import { useDesign } from "../../document/useDesign";
import { boundsOf, dragged, type Line, PAINT, paintOf, path, type Section, type Spot, type Stack } from "./stack";

const MARGIN = 8;

/** The board from the front with the line of the cut, and what the line goes through, both in true proportion. */
export function SideCut({ stack, line, setLine }: { stack: Stack; line: Line; setLine: (line: Line) => void }) {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "section", head.version, stack.board, line],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/stack/section", {
					params: {
						path: { project_id: head.project },
						query: { board: stack.board, x1: line.from[0], y1: line.from[1], x2: line.to[0], y2: line.to[1] },
					},
				}),
			),
		placeholderData: keepPreviousData,
	});
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<Plan stack={stack} line={line} setLine={setLine} />
			<div className="flex min-h-[220px] flex-1 flex-col border-t border-rule bg-card px-3 py-2">
				<p className="text-[12px] text-ink-2">
					Cut from A to B, the front wall above; seen from the right of the line. Heights in mm from the far face of the
					board.
				</p>
				{query.error && <p className="text-stop">{query.error.message}</p>}
				{query.data && <Cut section={query.data} stack={stack} />}
				<Key />
			</div>
		</div>
	);
}

function Plan({ stack, line, setLine }: { stack: Stack; line: Line; setLine: (line: Line) => void }) {
	const frame = useRef<SVGSVGElement>(null);
	const reckon = useReckoner();
	const held = useRef<{ what: "from" | "to" | "both"; x: number; y: number; line: Line } | null>(null);
	const [left, bottom, right, top] = boundsOf(stack.inside as Spot[]);
	const wall = stack.wall_mm;
	const mark = Math.max(right - left, top - bottom) / 52;
	const box = [
		left - wall - MARGIN,
		-wall - MARGIN,
		right - left + 2 * (wall + MARGIN),
		top - bottom + 2 * (wall + MARGIN),
	];
	const mm = (event: PointerEvent): Spot => {
		const matrix = frame.current?.getScreenCTM()?.inverse();
		const spot = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
		return [spot.x, top - spot.y];
	};
	const take = (what: "from" | "to" | "both") => (event: PointerEvent<SVGElement>) => {
		event.currentTarget.setPointerCapture(event.pointerId);
		const [x, y] = mm(event);
		held.current = { what, x, y, line };
	};
	const drag = (event: PointerEvent) => {
		const now = held.current;
		if (!now) return;
		const [x, y] = mm(event);
		setLine(dragged(now.line, now.what, x - now.x, y - now.y));
	};
	const keys = (what: "from" | "to" | "both") => (event: KeyboardEvent) => {
		const step = event.shiftKey ? 5 : 0.5;
		const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
		if (!way) return;
		event.preventDefault();
		event.stopPropagation();
		setLine(dragged(line, what, way[0] ?? 0, way[1] ?? 0));
	};
	const hold = (what: "from" | "to" | "both", label: string) => ({
		onPointerDown: take(what),
		onPointerMove: drag,
		onPointerUp: () => {
			held.current = null;
		},
		onKeyDown: keys(what),
		tabIndex: 0,
		role: "slider",
		"aria-label": label,
		"aria-valuenow": what === "to" ? line.to[0] : line.from[0],
		"aria-valuetext": `${line.from.join(", ")} to ${line.to.join(", ")} mm`,
		className: "cursor-move",
	});
	const at = ([x, y]: Spot): Spot => [x, top - y];
	const [a, b] = [at(line.from), at(line.to)];
	return (
		<svg
			ref={frame}
			viewBox={box.join(" ")}
			className="min-h-[180px] flex-1"
			data-testid="plan"
			role="group"
			aria-label={`${stack.board} from the front, with the line of the cut`}
		>
			<path d={path(stack.inside as Spot[], top)} fill="none" stroke="var(--color-rule)" strokeWidth={2 * wall} />
			<path
				d={path(stack.outline as Spot[], top)}
				fill="var(--color-board)"
				stroke="var(--color-line)"
				strokeWidth={0.3}
			/>
			{stack.cut_outs.map((ring) => (
				<path
					key={ring.join(" ")}
					d={path(ring as Spot[], top)}
					fill="var(--color-paper)"
					stroke="var(--color-line)"
					strokeWidth={0.3}
				/>
			))}
			{[...stack.pieces]
				.sort((p, q) => p.high_mm - q.high_mm)
				.flatMap((piece) =>
					piece.rings.map((ring, index) => (
						<path
							// biome-ignore lint/suspicious/noArrayIndexKey: rings of a body have no names
							key={`${piece.name} ${index}`}
							d={path(ring as Spot[], top)}
							fill={paintOf(piece.sort)}
							fillOpacity={piece.far ? 0.25 : 0.8}
							stroke={piece.soft ? "var(--color-stop)" : "var(--color-line)"}
							strokeWidth={0.15}
							strokeDasharray={piece.far ? "0.8 0.6" : undefined}
							onPointerEnter={() =>
								reckon(`${piece.words}: ${piece.low_mm.toFixed(2)} to ${piece.high_mm.toFixed(2)} mm`)
							}
							onPointerLeave={() => reckon("")}
						/>
					)),
				)}
			{stack.wires.flatMap((run) =>
				run.legs.map(([far, spots]) => (
					<polyline
						key={`${run.thing} ${far}`}
						points={(spots as Spot[]).map((spot) => at(spot).join(",")).join(" ")}
						fill="none"
						stroke={paintOf("wires")}
						strokeWidth={run.bundle_mm}
						strokeOpacity={0.75}
						strokeLinejoin="round"
						strokeDasharray={far ? "2 1.4" : undefined}
						data-wires={run.thing}
						onPointerEnter={() =>
							reckon(`Wires of ${run.words} to ${run.ref}${far ? ", behind the board" : ""}: cut to ${run.cut_mm} mm`)
						}
						onPointerLeave={() => reckon("")}
					/>
				)),
			)}
			{stack.tightest.map((gap, index) => (
				<g key={`${gap.one} ${gap.other}`} transform={`translate(${gap.x_mm} ${top - gap.y_mm})`}>
					<circle r={mark} fill="var(--color-card)" stroke="var(--color-look)" strokeWidth={0.3} />
					<text y={mark * 0.5} textAnchor="middle" fontSize={mark * 1.5} className="figure" fill="var(--color-ink)">
						{index + 1}
					</text>
				</g>
			))}
			<line
				x1={a[0]}
				y1={a[1]}
				x2={b[0]}
				y2={b[1]}
				stroke="transparent"
				strokeWidth={4}
				{...hold("both", "Line of the cut")}
			/>
			<line
				x1={a[0]}
				y1={a[1]}
				x2={b[0]}
				y2={b[1]}
				stroke="var(--color-patina)"
				strokeWidth={0.5}
				strokeDasharray="2 0.8 0.5 0.8"
				pointerEvents="none"
			/>
			{(
				[
					["from", a, "A"],
					["to", b, "B"],
				] as const
			).map(([what, [x, y], name]) => (
				<g key={what} {...hold(what, `End ${name} of the cut`)}>
					<circle cx={x} cy={y} r={mark * 1.1} fill="var(--color-patina)" />
					<text
						x={x}
						y={y + mark * 0.55}
						textAnchor="middle"
						fontSize={mark * 1.6}
						fontWeight={600}
						fill="var(--color-card)"
					>
						{name}
					</text>
				</g>
			))}
		</svg>
	);
}

function Cut({ section, stack }: { section: Section; stack: Stack }) {
	const reckon = useReckoner();
	const low = -stack.far_room_mm - stack.wall_mm;
	const high = stack.board_mm + stack.near_room_mm + stack.wall_mm;
	const frame = useRef<HTMLDivElement>(null);
	const { w: width, h: height } = useSize(frame);
	const [before, above] = [8 + section.long_mm / 14, 5];
	const perMm = Math.max(0.5, Math.min(width / (section.long_mm + 2 * before), height / (high - low + 2 * above)));
	const small = 12 / perMm;
	const order = ["wall", "post", "board"];
	const cuts = [...section.cuts].sort((p, q) => order.indexOf(q.sort) - order.indexOf(p.sort));
	const levels = readable(
		[low, -stack.far_room_mm, 0, stack.board_mm, stack.board_mm + stack.near_room_mm, high],
		small * 1.05,
	);
	return (
		<div ref={frame} className="min-h-0 flex-1">
			<svg
				viewBox={`${-before} ${-above} ${section.long_mm + 2 * before} ${high - low + 2 * above}`}
				className="h-full w-full"
				role="img"
				aria-label="The cut"
				data-testid="cut"
			>
				<g transform={`translate(0 ${high})`}>
					{cuts.map((cut) => (
						<g key={`${cut.name} ${cut.start_mm}`} data-piece={cut.name}>
							<rect
								x={cut.start_mm}
								y={-cut.high_mm}
								width={Math.max(cut.end_mm - cut.start_mm, 0.1)}
								height={Math.max(cut.high_mm - cut.low_mm, 0.1)}
								fill={paintOf(cut.sort)}
								stroke="var(--color-ink-2)"
								strokeWidth={0.12}
								onPointerEnter={() =>
									reckon(
										`${cut.words}: ${cut.low_mm.toFixed(2)} to ${cut.high_mm.toFixed(2)} mm${cut.swell_mm ? `, ${cut.swell_mm.toFixed(1)} mm of it for swelling` : ""}`,
									)
								}
								onPointerLeave={() => reckon("")}
							/>
							{cut.swell_mm > 0 && (
								<line
									x1={cut.start_mm}
									x2={cut.end_mm}
									y1={cut.low_mm < 0 ? -cut.low_mm - cut.swell_mm : -cut.high_mm + cut.swell_mm}
									y2={cut.low_mm < 0 ? -cut.low_mm - cut.swell_mm : -cut.high_mm + cut.swell_mm}
									stroke="var(--color-stop)"
									strokeWidth={0.2}
									strokeDasharray="0.8 0.6"
								/>
							)}
							{cut.end_mm - cut.start_mm > cut.name.length * small * 0.6 && cut.high_mm - cut.low_mm > small && (
								<text
									x={(cut.start_mm + cut.end_mm) / 2}
									y={-(cut.low_mm + cut.high_mm) / 2 + small * 0.35}
									textAnchor="middle"
									fontSize={small}
									fill="var(--color-ink)"
									pointerEvents="none"
								>
									{cut.name}
								</text>
							)}
						</g>
					))}
					{levels.map((z) => (
						<g key={z} stroke="var(--color-line)" strokeWidth={0.12}>
							<line x1={-1.5} x2={0} y1={-z} y2={-z} />
							<text
								x={-2}
								y={-z + small * 0.35}
								textAnchor="end"
								fontSize={small}
								className="figure"
								fill="var(--color-ink-2)"
								stroke="none"
							>
								{z.toFixed(1)}
							</text>
						</g>
					))}
					<text x={0} y={-high - small * 0.3} fontSize={small * 1.1} fontWeight={600} fill="var(--color-patina)">
						A
					</text>
					<text
						x={section.long_mm}
						y={-high - small * 0.3}
						textAnchor="end"
						fontSize={small * 1.1}
						fontWeight={600}
						fill="var(--color-patina)"
					>
						B
					</text>
				</g>
			</svg>
		</div>
	);
}

/** Levels without those whose numbers would lie on the one before. */
function readable(levels: number[], apart: number): number[] {
	const kept: number[] = [];
	for (const z of [...levels].sort((p, q) => p - q)) if (kept.every((k) => z - k >= apart)) kept.push(z);
	return kept;
}

function Key() {
	return (
		<p className="flex flex-wrap gap-x-3 text-[12px] text-ink-2">
			{Object.entries(PAINT).map(([sort, { fill, words }]) => (
				<span key={sort} className="flex items-center gap-1">
					<span className="inline-block h-[9px] w-[14px] border border-line" style={{ background: fill }} />
					{words}
				</span>
			))}
		</p>
	);
}
