import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { Figure } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";
import type { Stack } from "./stack";

/** What comes through the shell, with the sizes to draw, and templates at true size. */
export function Openings({ stack }: { stack: Stack }) {
	const { head } = useDesign();
	const [mirrored, setMirrored] = useState(false);
	const templates = useQuery({
		queryKey: ["stack templates"],
		queryFn: () => take(client.GET("/api/stack/templates")),
		staleTime: Number.POSITIVE_INFINITY,
	});
	const query = new URLSearchParams({ board: stack.board, ...(mirrored ? { mirrored: "true" } : {}) });
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
			<h2 className="border-b border-ink pb-1 font-semibold">Openings</h2>
			<table className="w-full text-[12px]" data-testid="openings">
				<thead>
					<tr className="text-left text-[12px] text-ink-2">
						<th className="py-1 font-normal">for</th>
						<th className="font-normal">wall</th>
						<th className="text-right font-normal">middle, mm</th>
						<th className="text-right font-normal">needed, mm</th>
						<th className="text-right font-normal">draw, mm</th>
					</tr>
				</thead>
				<tbody>
					{stack.openings.map((one) => (
						<tr key={one.words} className="border-b border-rule">
							<td className="py-1 pr-2">{one.words}</td>
							<td className="pr-2 whitespace-nowrap text-ink-2">{one.wall}</td>
							<td className="figure pr-2 text-right whitespace-nowrap">
								{one.x_mm.toFixed(2)}, {one.wall === "side" ? `${one.z_mm.toFixed(2)} up` : one.y_mm.toFixed(2)}
							</td>
							<td className="figure pr-2 text-right whitespace-nowrap text-ink-2">
								{sized(one.needed_mm as [number, number], one.round)}
							</td>
							<td className="text-right whitespace-nowrap">
								<Figure working={one.working} unit={false} />
								{!one.round && <span className="figure"> x {one.drawn_mm[1].toFixed(2)}</span>}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{stack.openings.length === 0 && <p className="py-2 text-ink-2">Nothing comes through the shell of this board.</p>}
			<h2 className="mt-5 flex items-baseline gap-3 border-b border-ink pb-1 font-semibold">
				Templates and bodies
				<label className="flex items-center gap-1.5 text-[12px] font-normal">
					<input type="checkbox" checked={mirrored} onChange={(event) => setMirrored(event.target.checked)} />
					mirrored: {mirrored ? "seen from behind" : "no, seen from the front"}
				</label>
			</h2>
			<ul data-testid="templates">
				{(templates.data ?? []).map((template) => (
					<li key={template.name} className="flex items-center gap-3 border-b border-rule py-1.5">
						<span className="flex-1">
							<span className="font-medium">{template.name.replace("-", " ")}</span>
							<span className="block text-[12px] text-ink-2">{template.words}</span>
						</span>
						{template.formats.map((format) => (
							<a
								key={format}
								className="border border-line bg-card px-2 py-0.5 text-[12px]"
								href={`/api/projects/${head.project}/stack/templates/${template.name}.${format}?${query}`}
							>
								{format.toUpperCase()}
							</a>
						))}
					</li>
				))}
			</ul>
			<p className="mt-2 text-[12px] text-ink-2">
				Every page has a ruler and a line to measure: hold a rule to the print before you cut or drill. Resin, blades
				and drills can hurt: gloves and glasses.
			</p>
		</div>
	);
}

const sized = ([wide, high]: [number, number], round: boolean) =>
	round ? `${wide.toFixed(2)} round` : `${wide.toFixed(2)} x ${high.toFixed(2)}`;
