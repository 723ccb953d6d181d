import { useEffect, useRef, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Choice } from "../../design/Choice";
import { NumberField } from "../../design/NumberField";
import { useDesign } from "../../document/useDesign";

type Seen = Schemas["DrawingSeen"];
type Asked = Omit<Schemas["DrawingGiven"], "text" | "board">;

/** An outline out of a DXF or SVG file: read, shown with what there is to say of it, and taken only then. */
export function TakeDrawing({ board, close }: { board: string; close: () => void }) {
	const { head, edit } = useDesign();
	const [file, setFile] = useState<{ name: string; text: string } | null>(null);
	const [asked, setAsked] = useState<Asked>({ heal_mm: 0.05, flipped: false, existing: false });
	const [seen, setSeen] = useState<Seen | null>(null);
	const [problem, setProblem] = useState<Refusal | null>(null);
	const chooser = useRef<HTMLInputElement>(null);
	const project = head.project;

	useEffect(() => {
		if (!file) return;
		let current = true;
		const body = { ...asked, board, text: file.text };
		take(client.POST("/api/projects/{project_id}/drawings", { params: { path: { project_id: project } }, body }))
			.then((found) => {
				if (!current) return;
				setSeen(found);
				setProblem(null);
			})
			.catch((error: unknown) => {
				if (!current) return;
				setSeen(null);
				setProblem(error instanceof Refusal ? error : new Refusal("The drawing could not be read.", "Try another.", 0));
			});
		return () => {
			current = false;
		};
	}, [file, asked, board, project]);

	const taken = async () => {
		if (seen?.edit && (await edit(seen.edit as Parameters<typeof edit>[0]))) close();
	};
	const gone = head.things.filter(
		(t) => t.board === board && ["hole", "slot", "cut-out", "free-cut-out"].includes(t.kind),
	).length;
	return (
		<section
			aria-label="Outline from a drawing"
			data-testid="take-drawing"
			className="flex min-h-0 flex-1 gap-4 overflow-y-auto p-4"
		>
			<div className="flex w-[250px] shrink-0 flex-col gap-2">
				<h2 className="font-semibold">Outline of {board} from a drawing</h2>
				<input
					ref={chooser}
					type="file"
					accept=".dxf,.svg"
					aria-label="A DXF or SVG file"
					className="sr-only"
					tabIndex={-1}
					onChange={(event) => {
						const chosen = event.target.files?.[0];
						if (chosen) void chosen.text().then((text) => setFile({ name: chosen.name, text }));
					}}
				/>
				<div className="flex min-w-0 items-center gap-2">
					<Button onClick={() => chooser.current?.click()}>Choose a file</Button>
					<span className="truncate text-[12px] text-ink-2">{file?.name ?? "DXF or SVG"}</span>
				</div>
				<Choice
					label="Unit"
					value={asked.unit ?? "file"}
					options={[
						["file", "as the file says"],
						["mm", "millimetres"],
						["inch", "inches"],
					]}
					set={(unit) => setAsked({ ...asked, unit: unit === "file" ? null : unit })}
				/>
				<Choice
					label="Seen from"
					value={asked.flipped ? "behind" : "front"}
					options={[
						["front", "the near side"],
						["behind", "the far side"],
					]}
					set={(side) => setAsked({ ...asked, flipped: side === "behind" })}
				/>
				<NumberField
					label="Heal gaps to"
					unit="mm"
					value={asked.heal_mm ?? 0.05}
					set={(v) => v != null && setAsked({ ...asked, heal_mm: v })}
				/>
				<NumberField
					label="Calipers wide"
					unit="mm"
					empty
					value={asked.width_mm ?? null}
					set={(v) => setAsked({ ...asked, width_mm: v })}
				/>
				<NumberField
					label="Calipers high"
					unit="mm"
					empty
					value={asked.height_mm ?? null}
					set={(v) => setAsked({ ...asked, height_mm: v })}
				/>
				<label className="flex items-center gap-2 text-[12px]">
					<input
						type="checkbox"
						className="accent-patina"
						checked={asked.existing ?? false}
						onChange={(event) => setAsked({ ...asked, existing: event.target.checked })}
					/>
					it is that of an existing shell: lock it
				</label>
				{gone > 0 && seen?.edit && (
					<p className="text-[12px] text-ink-2">
						The {gone} hole{gone > 1 ? "s" : ""} and openings that {board} has now are replaced.
					</p>
				)}
				<div className="flex gap-2">
					<Button weight="main" disabled={!seen?.edit} data-testid="take-outline" onClick={() => void taken()}>
						Take it
					</Button>
					<Button onClick={close}>Leave it</Button>
				</div>
			</div>
			<div className="min-w-0 flex-1" aria-live="polite">
				{!file && (
					<p className="text-ink-2">
						The closed line that encloses the most becomes the board; circles, slots and rectangles in it become holes
						and openings.
					</p>
				)}
				{problem && (
					<p className="text-stop" data-testid="drawing-refused">
						{problem.sentence} {problem.wayOut}
					</p>
				)}
				{seen && (
					<>
						<p className={seen.asks_unit ? "text-look" : "font-medium"} data-testid="drawing-seen">
							{seen.sentence}
						</p>
						{seen.outline_mm && seen.outline_mm.length > 0 && <Picture seen={seen} />}
						<ul className="mt-2 text-[12px]">
							{(seen.notes ?? []).map((note) => (
								<li key={note}>{note}</li>
							))}
						</ul>
					</>
				)}
			</div>
		</section>
	);
}

/** The drawing as it would be taken, with its measures. */
function Picture({ seen }: { seen: Seen }) {
	const outline = seen.outline_mm ?? [];
	const w = Math.max(...outline.map((p) => p[0]));
	const h = Math.max(...outline.map((p) => p[1]));
	const px = Math.max(w / 260, h / 320);
	return (
		<svg
			role="img"
			aria-label="The outline that would be taken"
			viewBox={`${-30 * px} ${-10 * px} ${w + 40 * px} ${h + 40 * px}`}
			className="mt-2 max-h-[430px] w-full"
		>
			<path
				d={`M${outline.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
				strokeWidth={1.5 * px}
			/>
			{(seen.openings ?? []).map(([x, y, wide, high, corner, turn]) => (
				<rect
					key={`${x},${y}`}
					x={-wide / 2}
					y={-high / 2}
					width={wide}
					height={high}
					rx={corner}
					transform={`translate(${x} ${h - y}) rotate(${-turn})`}
					fill="var(--color-paper)"
					stroke="var(--color-ink)"
					strokeWidth={px}
				/>
			))}
			{(seen.lines ?? []).map((line) => (
				<path
					key={line.join()}
					d={`M${line.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
					fill="var(--color-paper)"
					stroke="var(--color-ink)"
					strokeWidth={px}
				/>
			))}
			{(seen.holes ?? []).map(([x, y, d]) => (
				<g key={`${x},${y}`}>
					<circle cx={x} cy={h - y} r={d / 2} fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth={px} />
					<text x={x + d / 2 + 3 * px} y={h - y + 4 * px} fontSize={11 * px} className="figure">
						{d.toFixed(2)}
					</text>
				</g>
			))}
			<text x={w / 2} y={h + 20 * px} fontSize={12 * px} textAnchor="middle" className="figure">
				{w.toFixed(2)} mm
			</text>
			<text
				x={-14 * px}
				y={h / 2}
				fontSize={12 * px}
				textAnchor="middle"
				transform={`rotate(-90 ${-14 * px} ${h / 2})`}
				className="figure"
			>
				{h.toFixed(2)} mm
			</text>
		</svg>
	);
}
