import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { Choice } from "../../design/Choice";
import { useDesign } from "../../document/useDesign";

type Making = Schemas["Making"];
const SOLDERED: [Making["soldered_by"], string][] = [
	["hand iron", "with an iron"],
	["hot plate", "on a hot plate"],
	["assembly house", "by a house"],
];
const HOUSES = ["shelf", "houses"];

/** How the boards are made and soldered; what the chosen house offers stands in the lists, what it does not is a stop at the Release. */
export function MakingFields() {
	const { head, edit } = useDesign();
	const houses = useQuery({ queryKey: HOUSES, queryFn: () => take(client.GET("/api/shelf/houses")) });
	const { making } = head.brief;
	const house = head.choices.own_house ?? houses.data?.find((row) => row.house.id === head.choices.house)?.house;
	const set = (change: Partial<Making>) => void edit({ kind: "set-making", making: { ...making, ...change } });
	const listed = (offered: readonly string[] | undefined, now: string): [string, string][] =>
		[...new Set([...(offered ?? []), now])].map((name) => [name, name]);
	return (
		<fieldset className="flex flex-col gap-1 border-t border-rule pt-2" data-testid="making">
			<legend className="text-[12px] text-ink-2">Boards{house && `, as ${house.name} offers them`}</legend>
			<Choice
				beside
				label="Finish"
				value={making.finish}
				options={listed(house?.finishes, making.finish)}
				set={(finish) => set({ finish })}
			/>
			<Choice
				beside
				label="Colour"
				value={making.colour}
				options={listed(house?.colours, making.colour)}
				set={(colour) => set({ colour })}
			/>
			<Choice
				beside
				label="Thick"
				value={making.thickness_mm.toFixed(1)}
				options={listed(
					house?.thickness_um.map((um) => (um / 1000).toFixed(1)),
					making.thickness_mm.toFixed(1),
				).map(([mm]) => [mm, `${mm} mm`] as const)}
				set={(mm) => set({ thickness_mm: Number(mm) })}
			/>
			<Choice
				beside
				label="Copper"
				value={String(making.copper_um)}
				options={listed(house?.copper_um.map(String), String(making.copper_um)).map(
					([um]) => [um, `${um} µm`] as const,
				)}
				set={(um) => set({ copper_um: Number(um) })}
			/>
			<Choice
				beside
				label="Soldered"
				value={making.soldered_by}
				options={SOLDERED}
				set={(soldered_by) => set({ soldered_by })}
			/>
			<label className="flex items-center gap-2 text-[12px]">
				<input
					type="checkbox"
					checked={making.insulator}
					onChange={(event) => set({ insulator: event.target.checked })}
				/>
				insulator of 1 mm about soft cells
			</label>
		</fieldset>
	);
}
