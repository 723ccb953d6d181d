import { Picker } from "../design/Picker";
import { useDesign } from "../document/useDesign";

/** The boards of a device with several of them, one of which is shown. */
export function BoardPicker({ board, show }: { board: string; show: (board: string) => void }) {
	const { head } = useDesign();
	return <Picker names={head.boards.map((each) => each.name)} shown={board} mark="board" show={show} />;
}
