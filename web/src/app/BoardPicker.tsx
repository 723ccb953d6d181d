import { useDesign } from "../document/useDesign";

/** The boards of a device with several of them, one of which is shown. */
export function BoardPicker({ board, show }: { board: string; show: (board: string) => void }) {
	const { head } = useDesign();
	if (head.boards.length < 2) return null;
	return head.boards.map((each) => (
		<button
			key={each.name}
			type="button"
			aria-pressed={each.name === board}
			data-board={each.name}
			className={`rounded-[3px] border px-2 py-0.5 ${each.name === board ? "border-copper bg-card font-semibold" : "border-transparent text-ink-2 hover:border-rule"}`}
			onClick={() => show(each.name)}
		>
			{each.name}
		</button>
	));
}
