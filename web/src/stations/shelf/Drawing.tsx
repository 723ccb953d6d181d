import type { Schemas } from "../../api/client";

const TRUE_PX = 96 / 25.4;
const [MOST_PX, MOST_HIGH_PX, NAMES_PX] = [230, 220, 74];

/** A part from above as it lies on the board: enlarged with what every pad is, and beside it at true size. */
export function Drawing({ drawing, title }: { drawing: Schemas["PartDrawing"]; title: string }) {
	const [left, bottom, right, top] = drawing.room_mm as [number, number, number, number];
	const edge = 0.3;
	const [w, h] = [right - left + 2 * edge, top - bottom + 2 * edge];
	const grow = Math.min(MOST_PX / w, MOST_HIGH_PX / h, 60);
	return (
		<figure className="flex flex-col gap-2">
			<Picture drawing={drawing} title={`${title}, enlarged`} px={grow} named />
			<div>
				<Picture drawing={drawing} title={`${title}, true size`} px={TRUE_PX} named={false} />
				<figcaption className="mt-1 text-[12px] text-ink-2">
					true size
					<br />
					<span className="figure text-ink">
						{(right - left).toFixed(2)} × {(top - bottom).toFixed(2)}
					</span>{" "}
					mm with its room
				</figcaption>
			</div>
		</figure>
	);
}

function Picture({
	drawing,
	title,
	px,
	named,
}: {
	drawing: Schemas["PartDrawing"];
	title: string;
	px: number;
	named: boolean;
}) {
	const [left, bottom, right, top] = drawing.room_mm as [number, number, number, number];
	const [bl, bb, br, bt] = drawing.body_mm as [number, number, number, number];
	const edge = 0.3;
	const [w, h] = [right - left + 2 * edge, top - bottom + 2 * edge];
	const line = named ? 1 / px : 0.12;
	const names = named ? namesOf(drawing, px) : [];
	const side = names.length ? NAMES_PX / px : 0;
	const above = names.some((name) => name.upright) ? NAMES_PX / px : 0;
	return (
		<svg
			viewBox={`${left - edge - side} ${-top - edge - above} ${w + 2 * side} ${h + 2 * above}`}
			width={(w + 2 * side) * px}
			height={(h + 2 * above) * px}
			role="img"
			aria-label={title}
			data-testid={named ? "drawing" : "true-size"}
		>
			<rect
				x={left}
				y={-top}
				width={right - left}
				height={top - bottom}
				fill="none"
				stroke="var(--color-ink-2)"
				strokeWidth={line}
				strokeDasharray={`${4 * line} ${3 * line}`}
			/>
			<rect
				x={bl}
				y={-bt}
				width={br - bl}
				height={bt - bb}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
				strokeWidth={1.4 * line}
			/>
			{drawing.pads.map((pad, index) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: pads of one number may lie on one place, and their order is that of the drawing
				<g key={index}>
					<title>{`pad ${pad.number}${pad.terminal ? `: ${pad.terminal}` : ", no terminal yet"}`}</title>
					<rect
						x={pad.x_mm - pad.w_mm / 2}
						y={-pad.y_mm - pad.h_mm / 2}
						width={pad.w_mm}
						height={pad.h_mm}
						rx={pad.round ? pad.w_mm / 2 : 0}
						fill={pad.terminal ? "var(--color-copper)" : "var(--color-paper)"}
						stroke={pad.terminal ? "none" : "var(--color-stop)"}
						strokeWidth={2 * line}
					/>
					{pad.drill_mm > 0 && <circle cx={pad.x_mm} cy={-pad.y_mm} r={pad.drill_mm / 2} fill="var(--color-paper)" />}
					{named && Math.min(pad.w_mm, pad.h_mm) * px > 9 && (
						<text
							x={pad.x_mm}
							y={-pad.y_mm}
							fontSize={Math.min(pad.w_mm, pad.h_mm, 16 / px) * 0.8}
							textAnchor="middle"
							dominantBaseline="central"
							fill={pad.drill_mm > 0 || !pad.terminal ? "var(--color-ink)" : "#fff"}
						>
							{pad.number}
						</text>
					)}
				</g>
			))}
			{drawing.holes_mm.map(([x, y, d]) => (
				<circle
					key={`${x} ${y}`}
					cx={x}
					cy={-(y ?? 0)}
					r={(d ?? 0) / 2}
					fill="var(--color-paper)"
					stroke="var(--color-ink)"
					strokeWidth={line}
				/>
			))}
			{names.map((name) => (
				<text
					key={`${name.x} ${name.y}`}
					fontSize={12 / px}
					fill="var(--color-ink)"
					dominantBaseline="central"
					textAnchor={name.anchor}
					transform={`translate(${name.x} ${name.y})${name.upright ? " rotate(-90)" : ""}`}
				>
					{name.text}
				</text>
			))}
			{named && drawing.first_mm && <First at={drawing.first_mm as [number, number]} left={left} top={top} px={px} />}
		</svg>
	);
}

/** The mark of the first pin: a corner at that end of the room. */
function First({ at, left, top, px }: { at: [number, number]; left: number; top: number; px: number }) {
	const x = at[0] < 0 ? left : -left;
	const y = at[1] < 0 ? top : -top;
	return <circle cx={x} cy={y} r={5 / px} fill="var(--color-legend)" />;
}

type Name = { x: number; y: number; text: string; anchor: "start" | "end"; upright: boolean };

/** The functions of pads beside the room, where the pads leave room for words. */
function namesOf(drawing: Schemas["PartDrawing"], px: number): Name[] {
	const [left, bottom, right, top] = drawing.room_mm as [number, number, number, number];
	const gap = 6 / px;
	const names: Name[] = [];
	for (const pad of drawing.pads) {
		if (!pad.terminal) continue;
		const across = Math.min(pad.x_mm - left, right - pad.x_mm) / (right - left);
		const along = Math.min(pad.y_mm - bottom, top - pad.y_mm) / (top - bottom);
		const upright = pad.w_mm === pad.h_mm ? along < across : pad.h_mm > pad.w_mm;
		const west = pad.x_mm < (left + right) / 2;
		const north = pad.y_mm > (top + bottom) / 2;
		const text = pad.terminal.length > 11 ? `${pad.terminal.slice(0, 10)}…` : pad.terminal;
		const name: Name = upright
			? { x: pad.x_mm, y: north ? -top - gap : -bottom + gap, text, anchor: north ? "start" : "end", upright }
			: { x: west ? left - gap : right + gap, y: -pad.y_mm, text, anchor: west ? "end" : "start", upright };
		const close = names.some(
			(other) =>
				other.upright === upright &&
				other.anchor === name.anchor &&
				Math.hypot(other.x - name.x, other.y - name.y) < 12 / px,
		);
		if (!close) names.push(name);
	}
	return names;
}
