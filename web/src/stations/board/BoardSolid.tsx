import { useCallback } from "react";
import { SolidView } from "../../app/SolidView";
import type { Board } from "../../canvas/board";
import { solidOf } from "./solid";

/** The board as a solid with true heights. */
export default function BoardSolid({
	board,
	selected,
	select,
}: {
	board: Board;
	selected: string | null;
	select: (ref: string | null) => void;
}) {
	const words = (ref: string) => {
		const part = board.parts.find((p) => p.ref === ref);
		return part ? `${part.ref} ${part.purpose}, ${part.height.toFixed(1)} mm high` : "";
	};
	return (
		<SolidView build={useCallback(() => solidOf(board), [board])} label={board.board} words={words} select={select}>
			{selected && (
				<p className="absolute top-2 left-3 text-[12px]">
					{selected}, {board.parts.find((p) => p.ref === selected)?.height.toFixed(1)} mm high
				</p>
			)}
		</SolidView>
	);
}
