import type { Edit } from "../../api/client";
import type { Part } from "../../canvas/board";
import { Button } from "../../design/Button";
import { RowsForm } from "./RowsForm";

type How = Extract<Edit, { kind: "arrange-parts" }>["how"];
const HOWS: [How, string][] = [
	["row", "Same height"],
	["column", "Same column"],
	["spread across", "Spread across"],
	["spread up", "Spread up"],
	["turn alike", "Turn alike"],
	["swap", "Swap"],
];

/** What can be done with several picked parts; the first one picked gives the line and the turn. */
export function PartActions({ parts, edit }: { parts: Part[]; edit: (edit: Edit) => Promise<boolean> }) {
	return (
		<span className="flex flex-wrap items-center gap-1" data-testid="picked-parts">
			<span className="mr-1 whitespace-nowrap">
				<span className="figure">{parts.length}</span> picked, {parts[0]?.ref} first
			</span>
			{HOWS.filter(([how]) => how !== "swap" || parts.length === 2).map(([how, words]) => (
				<Button
					key={how}
					className="!px-1.5 !py-0"
					onClick={() => void edit({ kind: "arrange-parts", roles: parts.map((p) => p.role), how })}
				>
					{words}
				</Button>
			))}
			<Button
				className="!px-1.5 !py-0"
				title="The half of the first one leads; the same parts on the other half take the mirrored places"
				onClick={() => void edit({ kind: "mirror-parts", roles: parts.map((p) => p.role) })}
			>
				Mirror
			</Button>
			<RowsForm parts={parts} edit={edit} />
		</span>
	);
}
