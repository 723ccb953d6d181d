import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";

/** Chips of the open data set in packages we have patterns for; those with pins enough come first, the smallest first. */
export function ChipSearch({ brain, part, close }: { brain: string; part: string; close: () => void }) {
	const { head, edit } = useDesign();
	const [words, setWords] = useState("");
	const query = useQuery({
		queryKey: ["project", head.project, "chips", words, head.version, brain],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/chips", {
					params: { path: { project_id: head.project }, query: { words, brain } },
				}),
			),
		placeholderData: (before) => before,
	});
	const choose = async (name: string) => {
		if (await edit({ kind: "change-thing", name: brain, changes: { part: name } })) close();
	};
	return (
		<div className="border-b border-rule bg-card px-4 py-2" data-testid="chip-search">
			<div className="flex items-center gap-3">
				<input
					aria-label="Search chips"
					placeholder="name, family, package, soldering: l0 lqfp48 hand"
					className="w-[320px] border border-line bg-paper px-2 py-1"
					value={words}
					onChange={(event) => setWords(event.target.value)}
				/>
				<span className="text-[12px] text-ink-2">
					Smallest that fits, in stock and with a land pattern first. Pin locks belong to a chip and are dropped.
				</span>
			</div>
			<ul className="mt-2 grid max-h-[170px] grid-cols-1 gap-x-6 overflow-y-auto">
				{(query.data ?? []).map((chip) => (
					<li key={chip.name} className="flex items-center justify-between border-b border-rule py-0.5">
						<span className="figure">{chip.name}</span>
						<span
							className="flex-1 px-2 text-right text-[12px] text-ink-2"
							title={`${chip.supplier}; ${chip.soldering}`}
						>
							{chip.package}, <span className="figure">{chip.ports}</span> pins,{" "}
							{chip.pieces ? (
								<>
									<Figure working={chip.price} unit={false} />, {chip.pieces} in stock (simulated)
								</>
							) : (
								"not in stock (simulated)"
							)}
							{chip.fits ? "" : "; too small"}
							{chip.covered ? "" : "; pins only, no board yet"}
						</span>
						<Button weight="quiet" disabled={!chip.fits || chip.name === part} onClick={() => void choose(chip.name)}>
							Use
						</Button>
					</li>
				))}
			</ul>
			{query.data?.length === 0 && <p className="py-2 text-ink-2">No chip has all of these words.</p>}
		</div>
	);
}
