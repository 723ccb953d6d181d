import { useEffect, useRef, useState } from "react";
import { useReckoner } from "../../app/reckoner";
import type { Board, Side } from "../../canvas/board";
import type { Place } from "../../canvas/viewport";
import { begin, clearance, type Draft, drawn, givers, ledOn, legs, steppedBack, turnedOver } from "../../canvas/wiring";
import { useDesign } from "../../document/useDesign";

const MOST_NAMED = 2;

/** Drawing tracks: from a pad over corners to a pad; what is in the hand, and what a press, a move and a key make of it. Where others are `giving` way, what the router laid is led about what is drawn. */
export function useWiring(board: Board, side: Side, showSide: (side: Side) => void, giving: boolean) {
	const { edit, say, start } = useDesign();
	const reckon = useReckoner();
	const [draft, setDraft] = useState<Draft | null>(null);
	const [ahead, setAhead] = useState<Place | null>(null);
	// biome-ignore lint/correctness/useExhaustiveDependencies: a new board lets go of what was drawn on the old one
	useEffect(() => setDraft(null), [board.board]);
	const laying = useRef(false);
	/** Lets go of what is in the hand once it is laid; what was refused stays there to be led elsewhere. */
	const finish = async (done: Draft | null) => {
		if (laying.current) return;
		setAhead(null);
		setDraft(done);
		if (!done || done.legs.length + done.vias.length === 0) return setDraft(null);
		const drawing = drawn(board.board, done);
		laying.current = true;
		const laid = await (giving ? start("draw", { drawing }) : edit(drawing));
		laying.current = false;
		if (laid) setDraft(null);
	};
	const press = (at: Place) => {
		if (laying.current) return;
		if (!draft) {
			const first = begin(board, at, side);
			if (first) setDraft(first);
			else say({ kind: "refused", sentence: "A track begins at a pad.", wayOut: "Press a pad, a via or a track." });
			return;
		}
		const led = ledOn(board, draft, at);
		if (led.done) void finish(led.draft);
		else setDraft(led.draft);
	};
	const lookAhead = (at: Place) => {
		setAhead(at);
		if (!draft) return reckon("Press a pad to begin a track.");
		const rows = ledOn(board, draft, at).draft.legs.slice(draft.legs.length);
		const gaps = rows.map((leg) => clearance(board, draft, leg, giving));
		const led = giving ? givers(board, draft, [...draft.legs, ...rows]) : [];
		const least = gaps.sort((a, b) => a.gap - b.gap)[0];
		const words =
			least && Number.isFinite(least.gap) ? `${least.gap.toFixed(2)} mm from ${least.words}` : "nothing near";
		reckon(
			`${draft.net}, ${draft.width.toFixed(2)} mm, ${draft.far ? "far" : "near"} side: ${words}; ${board.gap_mm.toFixed(2)} mm are asked.${led.length ? ` ${firstOf(led)} will give way.` : ""} Space: other side, Backspace: back, Enter: end.`,
		);
	};
	const key = (name: string): boolean => {
		if (!draft) return false;
		if (name === " ") {
			const over = turnedOver(draft);
			setDraft(over);
			showSide(over.far ? "far" : "near");
		} else if (name === "Backspace") {
			const back = steppedBack(draft);
			setDraft(back);
			if (back.far !== draft.far) showSide(back.far ? "far" : "near");
		} else if (name === "Enter") void finish(draft);
		else if (name === "Escape") void finish(null);
		else return false;
		return true;
	};
	const coming = draft && ahead ? legs(draft.from, ledOn(board, draft, ahead).draft.from, draft.far) : [];
	const shown = draft && {
		legs: [...draft.legs, ...coming],
		vias: draft.vias,
		width: draft.width,
		near: [...draft.legs, ...coming].some((leg) => clearance(board, draft, leg, giving).gap < board.gap_mm - 1e-6),
	};
	return { draft, shown, press, lookAhead, key };
}

/** The first names of many, so that the line has room for the rest of its words. */
const firstOf = (names: string[]) =>
	names.slice(0, MOST_NAMED).join(", ") + (names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : "");
