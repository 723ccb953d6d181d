import { Sign } from "../../design/Sign";
import { byKind, type Line, STAMPS } from "./drawers";
import { PartPicture } from "./PartPicture";

/** The drawer of what is on the boards: a compartment a line, drawn at true size. */
export function Compartments({ lines, picked, pick }: { lines: Line[]; picked: string; pick: (key: string) => void }) {
	return (
		<div className="flex min-h-0 flex-1 flex-wrap content-start gap-x-4 overflow-y-auto p-4" data-testid="on-board">
			{byKind(lines).map(([kind, rows]) => (
				<section key={kind} aria-label={kind} className="mb-4">
					<h2 className="mb-1 text-[12px] text-ink-2">{kind}</h2>
					<ul className="flex flex-wrap pt-px pl-px">
						{rows.map((line) => {
							const key = keyOf(line);
							return (
								<li key={key} className="-mt-px -ml-px border border-line">
									<button
										type="button"
										data-part={line.part}
										aria-pressed={picked === key}
										className={`flex h-full w-[182px] flex-col gap-1 p-2 text-left ${picked === key ? "bg-board/60" : "bg-card hover:bg-paper"}`}
										onClick={() => pick(key)}
									>
										<span className="flex min-h-[58px] items-center justify-center py-1">
											<PartPicture line={line} />
										</span>
										<span className="flex items-baseline justify-between gap-2">
											<span className="figure font-medium">{nameOf(line)}</span>
											<span className="figure whitespace-nowrap text-ink-2">x {line.count}</span>
										</span>
										<span className="text-[12px] leading-tight text-ink-2">{line.size}</span>
										<Stamp line={line} />
									</button>
								</li>
							);
						})}
					</ul>
				</section>
			))}
		</div>
	);
}

export function Stamp({ line }: { line: Line }) {
	const [words, sign] = STAMPS[line.known];
	return (
		<span className="mt-auto flex items-center gap-1.5 self-start border border-line px-1.5 py-0.5 text-[12px]">
			<Sign kind={sign} size={10} />
			{words}
		</span>
	);
}

export const keyOf = (line: Line): string => `${line.part} ${line.value}`;

/** What a person calls it: its value, or its first words. */
export function nameOf(line: Line): string {
	const words = line.value && line.value.length <= 18 ? line.value : (line.what.split(",")[0] ?? line.what);
	return words.length > 20 ? `${words.slice(0, 19)}…` : words;
}
