import { Amount } from "./Amount";
import type { Part, Role } from "./typed";

/** The figures that the part's kind asks for, the most harmful to leave out first, and what else is known. */
export function PinFigures({
	part,
	role,
	put,
}: {
	part: Part;
	role: Role | undefined;
	put: ((change: Partial<Part>) => void) | null;
}) {
	const asked = role?.figures ?? [];
	const could = (role?.could_say ?? []).filter((figure) => put || part.values[figure.name] !== undefined);
	const named = [...asked, ...could];
	const more = Object.keys(part.values).filter((name) => !named.some((figure) => figure.name === name));
	const rows = [...named, ...more.map((name) => ({ name, words: name, unit: "" }))];
	const set = (name: string, value: number | null) => {
		const { [name]: _, ...others } = part.values;
		put?.({ values: value === null ? others : { ...others, [name]: value } });
	};
	if (rows.length === 0) return null;
	return (
		<section aria-label="Figures" className="text-[12px]">
			<h3 className="border-b border-ink pb-1 text-[14px] font-semibold">Figures</h3>
			<table className="w-full">
				<tbody>
					{rows.map((row) => (
						<tr key={row.name} className="border-b border-rule [&>td]:py-0.5" data-figure={row.name}>
							<td className="pr-2 text-ink-2">{row.words}</td>
							<td className="w-[140px]">
								{put ? (
									<Amount
										label={row.words}
										value={part.values[row.name]}
										unit={row.unit}
										set={(value) => set(row.name, value)}
									/>
								) : part.values[row.name] === undefined ? (
									<span className="text-look">not known</span>
								) : (
									<span className="figure">
										{part.values[row.name]} <span className="text-ink-2">{row.unit}</span>
									</span>
								)}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</section>
	);
}
