import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from "@headlessui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, take } from "../api/client";
import { useDesign } from "../document/useDesign";
import { useShown } from "./reckoner";
import { STATIONS } from "./stations";

type Hit = { label: string; hint: string; station: string; about: string[] };

/** Find anything that has a name, and go there. */
export function Finder({ open, close }: { open: boolean; close: () => void }) {
	const { head } = useDesign();
	const { show } = useShown();
	const navigate = useNavigate();
	const [words, setWords] = useState("");
	const circuit = useQuery({
		queryKey: ["project", head.project, "circuit"],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/circuit", { params: { path: { project_id: head.project } } })),
		enabled: open,
	});
	const hits: Hit[] = [
		...STATIONS.map((s) => ({ label: s.title, hint: "station", station: s.name, about: [] })),
		...head.things.map((thing) => ({
			label: thing.label,
			hint: thing.title.toLowerCase(),
			station: "brief",
			about: [`thing:${thing.name}`],
		})),
		...(circuit.data?.components ?? []).map((c) => ({
			label: c.ref,
			hint: c.purpose,
			station: "board",
			about: [`part:${c.ref}`],
		})),
		...(circuit.data?.nets ?? []).map((n) => ({
			label: n.name,
			hint: "net",
			station: "board",
			about: [`net:${n.name}`],
		})),
	].filter((hit) => `${hit.label} ${hit.hint}`.toLowerCase().includes(words.toLowerCase()));

	const go = (hit: Hit | null) => {
		if (!hit) return;
		navigate(`/project/${head.project}/${hit.station}`);
		if (hit.about.length) show({ about: hit.about, x: null, y: null });
		close();
	};
	return (
		<Dialog open={open} onClose={close} className="relative z-40" aria-label="Find">
			<div className="fixed inset-0 bg-ink/30" aria-hidden="true" />
			<div className="fixed inset-0 flex items-start justify-center pt-[90px]">
				<DialogPanel className="w-[520px] rounded border border-line bg-card p-3">
					<Combobox onChange={go}>
						<ComboboxInput
							autoFocus
							aria-label="Find"
							placeholder="thing, part, net or station"
							className="w-full border-b border-rule bg-transparent px-2 py-2 text-[16px] outline-none"
							onChange={(event) => setWords(event.target.value)}
						/>
						<ComboboxOptions static className="mt-2 max-h-[360px] overflow-y-auto">
							{hits.slice(0, 40).map((hit) => (
								<ComboboxOption
									key={`${hit.station}${hit.label}${hit.hint}`}
									value={hit}
									className="flex cursor-pointer justify-between rounded-[3px] px-2 py-1 data-focus:bg-paper"
								>
									<span className="font-medium">{hit.label}</span>
									<span className="text-ink-2">{hit.hint}</span>
								</ComboboxOption>
							))}
							{hits.length === 0 && <p className="px-2 py-1 text-ink-2">Nothing has that name.</p>}
						</ComboboxOptions>
					</Combobox>
				</DialogPanel>
			</div>
		</Dialog>
	);
}
