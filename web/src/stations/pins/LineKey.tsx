import type { Schemas } from "../../api/client";
import { LINES, styleOf } from "./lines";

/** What the lines mean, as far as they are drawn, and how many cross. */
export function LineKey({ view, drawn }: { view: Schemas["PinsView"]; drawn: number }) {
	const there = LINES.filter((line) => view.signals.some((s) => s.line === line));
	return (
		<p className="flex flex-wrap items-center gap-x-4 px-3 pb-1.5 text-[12px] text-ink-2">
			{there.map((line) => (
				<span key={line} className="flex items-center gap-1.5">
					<svg width={26} height={8} aria-hidden="true">
						<line x1={0} y1={4} x2={26} y2={4} {...styleOf(line)} />
					</svg>
					{line}
				</span>
			))}
			<span className="flex-1" />
			<span data-testid="crossings">
				<span className="figure">{drawn}</span> {drawn === 1 ? "crossing" : "crossings"} in this picture,{" "}
				<span className="figure">{view.crossings}</span> between the places on the board
			</span>
		</p>
	);
}
