import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";
import type { Build, Step } from "./useBuild";

type Board = Schemas["BoardDrawing"];

/** One step at a time: what is done, the board with its parts lit, technique, cautions. */
export function StepsPage({ build, board }: { build: Build; board: string }) {
	const { head } = useDesign();
	const [at, setAt] = useKept(`build step ${board}`, 0);
	const [done, setDone] = useKept<number[]>(`build done ${board}`, []);
	const query = useQuery({
		queryKey: ["project", head.project, "board", head.version, board],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/board", {
					params: { path: { project_id: head.project }, query: { board } },
				}),
			),
	});
	const index = Math.min(at, build.steps.length - 1);
	const step = build.steps[index];
	if (!step) return null;
	const tick = () => setDone(done.includes(index) ? done.filter((n) => n !== index) : [...done, index]);
	return (
		<div className="flex min-h-0 flex-1">
			<ol className="w-[230px] shrink-0 overflow-y-auto border-r border-rule py-1" data-testid="steps">
				{build.steps.map((row, number) => (
					<li key={row.title}>
						<button
							type="button"
							aria-current={number === index ? "step" : undefined}
							className={`flex w-full items-start gap-2 px-3 py-1.5 text-left ${number === index ? "bg-board" : "hover:bg-card"}`}
							onClick={() => setAt(number)}
						>
							<span className="mt-[3px]">
								<Sign kind={done.includes(number) ? "clear" : "empty"} size={12} />
							</span>
							<span className="flex-1">
								{row.title}
								<span className="block text-[12px] text-ink-2">
									{row.parts.length ? `${row.parts.length} ${row.parts.length === 1 ? "part" : "parts"}` : "no part"}
								</span>
							</span>
						</button>
					</li>
				))}
			</ol>
			<div className="flex min-h-0 min-w-0 flex-1 flex-col overflow-y-auto px-4 py-3">
				<div className="flex items-start gap-3">
					<h2 className="flex-1 text-[16px] font-semibold">
						<span className="figure text-ink-2">{index + 1}</span> {step.title}
					</h2>
					<label className="flex items-center gap-1.5">
						<input type="checkbox" checked={done.includes(index)} onChange={tick} data-testid="step-done" /> done
					</label>
				</div>
				<p className="mt-1">{step.how}</p>
				{step.technique && <p className="mt-1 text-ink-2">{step.technique}</p>}
				{query.data && <Lit board={query.data} step={step} />}
				{step.parts.length > 0 && <Parts step={step} />}
				{step.test && (
					<p className="mt-3 flex gap-2">
						<Sign kind="look" /> Before going on: {step.test}
					</p>
				)}
				{(step.cautions ?? []).map((words) => (
					<p key={words} className="mt-2 flex gap-2 text-[12px]">
						<Sign kind="note" /> {words}
					</p>
				))}
			</div>
		</div>
	);
}

function Lit({ board, step }: { board: Board; step: Step }) {
	const lit = new Set(step.parts.map((part) => part.ref));
	const xs = board.outline.map(([x]) => x);
	const ys = board.outline.map(([, y]) => y);
	const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const flip = step.far ? `translate(${left + right} 0) scale(-1 1)` : undefined;
	return (
		<figure className="mt-3">
			<svg
				viewBox={`${left - 2} ${-top - 2} ${right - left + 4} ${top - bottom + 4}`}
				className="max-h-[300px] w-full"
				role="img"
				aria-label={`The parts of this step on the ${step.far ? "far side, seen from behind" : "near side, seen from the front"}`}
				data-testid="lit"
			>
				<g transform={flip}>
					<path
						d={`M${board.outline.map(([x, y]) => `${x},${-y}`).join("L")}Z`}
						fill="var(--color-board)"
						stroke="var(--color-line)"
						strokeWidth={0.3}
					/>
					{board.parts
						.filter((part) => part.far === step.far)
						.map((part) => {
							const [l, b, r, t] = part.body;
							const on = lit.has(part.ref);
							return (
								<g key={part.ref} transform={`translate(${part.x} ${-part.y})`}>
									<rect
										x={l}
										y={-t}
										width={r - l}
										height={t - b}
										fill={on ? "var(--color-copper)" : "var(--color-card)"}
										fillOpacity={on ? 0.9 : 0.6}
										stroke={on ? "var(--color-ink)" : "var(--color-line)"}
										strokeWidth={on ? 0.25 : 0.12}
									/>
									{on && r - l > 3 && t - b > 2 && (
										<text
											y={0.9}
											textAnchor="middle"
											fontSize={2.4}
											fill="var(--color-card)"
											transform={step.far ? "scale(-1 1)" : undefined}
										>
											{part.ref}
										</text>
									)}
								</g>
							);
						})}
					{board.pads
						.filter((pad) => lit.has(pad.ref) && pad.pad === "1" && pad.sides.includes(step.far ? "far" : "near"))
						.map((pad) => (
							<circle key={pad.ref} cx={pad.x} cy={-pad.y} r={0.5} fill="var(--color-stop)" />
						))}
				</g>
			</svg>
			<figcaption className="text-[12px] text-ink-2">
				{step.far ? "Far side, seen from behind" : "Near side, seen from the front"}
				{step.parts.length > 0 && "; red dots mark pin 1"}
			</figcaption>
		</figure>
	);
}

function Parts({ step }: { step: Step }) {
	return (
		<table className="mt-3 w-full text-[12px]">
			<tbody>
				{step.parts.map((part) => (
					<tr key={part.ref} className="border-b border-rule">
						<td className="figure py-0.5 pr-3 font-medium">{part.ref}</td>
						<td className="figure pr-3 whitespace-nowrap">{part.value}</td>
						<td className="pr-3">{part.purpose}</td>
						<td className="text-right text-ink-2">{part.turn}</td>
					</tr>
				))}
			</tbody>
		</table>
	);
}
