import type { Schemas } from "../../api/client";
import { Figures } from "../../design/Figure";
import { useDesign } from "../../document/useDesign";
import { DeviceForm } from "./DeviceForm";
import { OutlineForm } from "./OutlineForm";
import type { Shaping } from "./outline";
import { ThingForm } from "./ThingForm";

/** The picked thing, the tally, and what is wished of the device. */
export function BriefPanel({
	selected,
	select,
	board,
	shaping,
}: {
	selected: string[];
	select: (names: string[]) => void;
	board: Schemas["BoardOutline"];
	shaping: Shaping | null;
}) {
	const { head } = useDesign();
	const thing = selected.length === 1 ? head.things.find((t) => t.name === selected[0]) : undefined;
	return (
		<section
			aria-label="Tally"
			className="flex w-[248px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-rule px-3 py-3 max-[800px]:w-full max-[800px]:overflow-visible max-[800px]:border-t max-[800px]:border-l-0"
		>
			<div>
				<h2 className="mb-2 font-semibold">Tally</h2>
				<div data-testid="tally">
					<Figures workings={head.tally} />
				</div>
			</div>
			{shaping ? (
				<OutlineForm board={board} {...shaping} />
			) : thing ? (
				<ThingForm key={thing.name} thing={thing} select={select} />
			) : (
				<p className="text-[12px] text-ink-2">Press a thing to read or change it.</p>
			)}
			<DeviceForm board={board.name} />
			<p className="border-t border-rule pt-2 text-[12px] text-ink-2">{head.brief.purpose}</p>
		</section>
	);
}
