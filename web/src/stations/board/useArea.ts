import { useEffect, useState } from "react";
import { useReckoner } from "../../app/reckoner";
import type { Board, Side } from "../../canvas/board";
import { snap } from "../../canvas/snapping";
import type { Place } from "../../canvas/viewport";

const STEP_MM = 0.25;

/** Drawing the line of an area, corner by corner on a grid of 0.25 mm; pressing the first corner again, or Enter, closes it. */
export function useArea(board: Board, side: Side, net: string, close: (ring: Place[]) => void) {
	const reckon = useReckoner();
	const [corners, setCorners] = useState<Place[]>([]);
	const [ahead, setAhead] = useState<Place | null>(null);
	// biome-ignore lint/correctness/useExhaustiveDependencies: another board, side or net lets go of what was drawn
	useEffect(() => setCorners([]), [board, side, net]);
	const finish = () => {
		if (corners.length > 2) close(corners);
		setCorners([]);
		setAhead(null);
	};
	const on = (at: Place) => ({ x: snap(at.x, STEP_MM), y: snap(at.y, STEP_MM) });
	const press = (at: Place, nearMm: number) => {
		const first = corners[0];
		if (first && corners.length > 2 && Math.hypot(first.x - at.x, first.y - at.y) < nearMm) finish();
		else setCorners([...corners, on(at)]);
	};
	const lookAhead = (at: Place) => {
		setAhead(on(at));
		const { x, y } = on(at);
		const how = corners.length > 2 ? "Enter or the first corner closes it" : "press its corners one after the other";
		reckon(
			`Area of ${net}, ${side} side: corner ${corners.length + 1} at ${x.toFixed(2)}, ${y.toFixed(2)} mm; ${how}.`,
		);
	};
	const key = (name: string): boolean => {
		if (!corners.length) return false;
		if (name === "Enter") finish();
		else if (name === "Backspace") setCorners(corners.slice(0, -1));
		else if (name === "Escape") setCorners([]);
		else return false;
		return true;
	};
	const shown = corners.length ? [...corners, ...(ahead ? [ahead] : [])] : null;
	return { shown, press, lookAhead, key };
}
