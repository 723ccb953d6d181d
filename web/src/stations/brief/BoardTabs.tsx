import { BoardPicker } from "../../app/BoardPicker";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

/** The boards of the device, one of them shown; another one is added beside it. */
export function BoardTabs({ board, show }: { board: string; show: (board: string) => void }) {
	const { head, edit } = useDesign();
	const add = async () => {
		const taken = new Set(head.boards.map((b) => b.name));
		let number = head.boards.length + 1;
		while (taken.has(`board ${number}`)) number++;
		const name = `board ${number}`;
		const outline = { kind: "rounded-rectangle", width_mm: 60, height_mm: 40, corner_mm: 3 } as const;
		if (await edit({ kind: "add-board", board: { name, outline, copper_layers: 2, both_sides: false } })) show(name);
	};
	return (
		<div className="flex items-center gap-1 text-[12px]" data-testid="boards">
			<BoardPicker board={board} show={show} />
			<Button className="!py-0" data-testid="add-board" onClick={() => void add()}>
				Add a board
			</Button>
			{head.boards.length > 1 && (
				<Button
					className="!py-0"
					onClick={() =>
						void edit({ kind: "remove-board", name: board }).then(
							(done) => done && show(head.boards.find((b) => b.name !== board)?.name ?? ""),
						)
					}
				>
					Remove {board}
				</Button>
			)}
		</div>
	);
}
