import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

type Card = Schemas["SchemeCard"];

/** The way through pressed keys that makes another one appear, drawn on the lines of the matrix, with the least cures. */
export function GhostPicture({ card }: { card: Card }) {
	const { head, edit } = useDesign();
	const ghost = card.ghost;
	if (!ghost) return null;
	const title = (id: string) => (head.keys.find((k) => k.id === id)?.title ?? id).replace("button ", "");
	const rows = [...new Set(ghost.cells.map((c) => c[1]))].sort((a, b) => a - b);
	const columns = [...new Set(ghost.cells.map((c) => c[2]))].sort((a, b) => a - b);
	const x = (column: number) => 60 + columns.indexOf(column) * 120;
	const y = (row: number) => 30 + rows.indexOf(row) * 46;
	const place = new Map(ghost.cells.map(([id, row, column]) => [id, { x: x(column), y: y(row) }]));
	const way = ghost.path.map((id) => place.get(id)).filter((p) => p !== undefined);
	const isMatrix = ghost.cells.length > 0 && card.name !== "resistor ladder";
	const held = ghost.path.map(title).join(", ");
	return (
		<div className="mt-1 text-[12px]" data-testid="ghost">
			<p>
				While <span className="font-medium">{held}</span> are held,{" "}
				<span className="font-medium">{title(ghost.key)}</span>{" "}
				{card.name === "resistor ladder" ? "is hidden behind the lower resistor." : "reads as pressed too."}
			</p>
			{isMatrix && (
				<svg
					viewBox={`0 0 ${columns.length * 120 + 150} ${rows.length * 46 + 14}`}
					className="mt-1 h-[130px] max-w-full"
					role="img"
					aria-label={`Ghost way over ${held}`}
				>
					{rows.map((row) => (
						<line
							key={row}
							x1={10}
							x2={columns.length * 120 + 10}
							y1={y(row)}
							y2={y(row)}
							stroke="var(--color-line)"
							strokeWidth={1.4}
						/>
					))}
					{columns.map((column) => (
						<line
							key={column}
							x1={x(column)}
							x2={x(column)}
							y1={8}
							y2={rows.length * 46 + 8}
							stroke="var(--color-line)"
							strokeWidth={1.4}
						/>
					))}
					<polyline
						points={way.map((p) => `${p.x},${p.y}`).join(" ")}
						fill="none"
						stroke="var(--color-copper)"
						strokeWidth={3}
						strokeOpacity={0.8}
					/>
					{[...place].map(([id, p]) => (
						<g key={id}>
							<circle
								cx={p.x}
								cy={p.y}
								r={7}
								fill={id === ghost.key ? "var(--color-card)" : "var(--color-copper)"}
								stroke="var(--color-ink)"
								strokeDasharray={id === ghost.key ? "3 2" : undefined}
							/>
							<text x={p.x + 10} y={p.y - 6} fontSize={11} fill="var(--color-ink)">
								{title(id)}
								{id === ghost.key ? " (nobody presses it)" : ""}
							</text>
						</g>
					))}
				</svg>
			)}
			{card.name === "bare matrix" && (
				<p className="flex flex-wrap items-center gap-2">
					<span className="text-ink-2">Least cures:</span>
					<Button
						className="!py-0"
						onClick={() =>
							void edit({
								kind: "set-scheme",
								scheme: { name: "bare matrix", shape: "best", direct: [], diodes: card.cure_diodes },
							})
						}
					>
						{card.cure_diodes.length} diodes
					</Button>
					<Button
						className="!py-0"
						onClick={() =>
							void edit({
								kind: "set-scheme",
								scheme: { name: "bare matrix", shape: "best", direct: card.cure_direct, diodes: [] },
							})
						}
					>
						{card.cure_direct.length} keys on pins of their own
					</Button>
				</p>
			)}
		</div>
	);
}
