import { describe, expect, it } from "vitest";
import type { Board } from "./board";
import {
	begin,
	clearance,
	cornerAt,
	dragged,
	drawn,
	givers,
	laid,
	ledOn,
	legs,
	steppedBack,
	turnedOver,
	viasOf,
} from "./wiring";

const pad = (ref: string, net: string, x: number, y: number, more = {}) => ({
	ref,
	pad: "1",
	net,
	x,
	y,
	w: 1,
	h: 2,
	turn: 0,
	sides: ["near"],
	round: false,
	drill: 0,
	...more,
});
const board = {
	parts: [],
	vias: [],
	via_mm: 0.6,
	via_hole_mm: 0.3,
	gap_mm: 0.15,
	tracks: [{ net: "B", far: false, x1: 0, y1: 10, x2: 20, y2: 10, w: 0.2, by_hand: false }],
	pads: [pad("R1", "A", 0, 0), pad("R2", "A", 10, 3), pad("C1", "B", 5, 0)],
	pieces: [],
} as unknown as Board;

describe("a track in the hand", () => {
	it("begins at the middle of a pad and ends at another one of its net", () => {
		const start = begin(board, { x: 0.3, y: 0.4 }, "near");
		expect(start).toMatchObject({ net: "A", from: { x: 0, y: 0 } });
		if (!start) return;
		const open = ledOn(board, start, { x: 2.04, y: 4.96 });
		expect(open.done).toBe(false);
		expect(open.draft.from).toEqual({ x: 2, y: 5 });
		const { draft, done } = ledOn(board, open.draft, { x: 10.2, y: 3.3 });
		expect(done).toBe(true);
		expect(draft.from).toEqual({ x: 10, y: 3 });
		expect(begin(board, { x: 30, y: 30 }, "near")).toBeNull();
	});
	it("goes slanting first, then straight", () => {
		expect(legs({ x: 0, y: 0 }, { x: 3, y: -1 }, false)).toEqual([
			{ far: false, x1: 0, y1: 0, x2: 1, y2: -1 },
			{ far: false, x1: 1, y1: -1, x2: 3, y2: -1 },
		]);
		expect(legs({ x: 0, y: 0 }, { x: 2, y: 2 }, true)).toHaveLength(1);
	});
	it("steps back over corners and vias, and is kept in nanometres", () => {
		const start = begin(board, { x: 0, y: 0 }, "near");
		if (!start) throw new Error("no start");
		const led = ledOn(board, start, { x: 0, y: 4 }).draft;
		const far = turnedOver(led);
		expect(far).toMatchObject({ far: true, vias: [{ x: 0, y: 4 }] });
		expect(steppedBack(far)).toEqual(led);
		expect(steppedBack(led)).toMatchObject({ from: { x: 0, y: 0 }, legs: [] });
		expect(drawn("main", far)).toEqual({
			kind: "draw-tracks",
			board: "main",
			tracks: [
				{ net: "A", far: false, x1_nm: 0, y1_nm: 0, x2_nm: 0, y2_nm: 4_000_000, width_nm: 200_000, by_hand: true },
			],
			vias: [{ net: "A", x_nm: 0, y_nm: 4_000_000, by_hand: true }],
		});
	});
	it("knows the gap to what belongs to others", () => {
		const start = begin(board, { x: 0, y: 0 }, "near");
		if (!start) throw new Error("no start");
		const leg = { far: false, x1: 0, y1: 1.5, x2: 10, y2: 1.5 };
		// the pad of C1 reaches up to 1.0: 0.5 less half the width of 0.2
		expect(clearance(board, start, leg)).toEqual({ gap: expect.closeTo(0.4), words: "C1 pad 1" });
		expect(clearance(board, start, { ...leg, y1: 0, y2: 0 }).gap).toBeLessThan(0);
		expect(clearance(board, start, { ...leg, y1: 9, y2: 9 })).toEqual({
			gap: expect.closeTo(0.8),
			words: "a track of B",
		});
		expect(clearance(board, start, { ...leg, far: true }).gap).toBe(Number.POSITIVE_INFINITY);
	});
	it("knows what would give way: routed tracks and vias, not pads and not what is by hand", () => {
		const start = begin(board, { x: 0, y: 0 }, "near");
		if (!start) throw new Error("no start");
		const over = { far: false, x1: 0, y1: 9.7, x2: 10, y2: 9.7 };
		expect(givers(board, start, [over])).toEqual(["B"]);
		expect(clearance(board, start, over, true).words).toBe("C1 pad 1");
		expect(givers(board, start, [{ ...over, far: true }])).toEqual([]);
		// 0.3 between the middles, 0.1 of each: a gap of 0.1 is too near, one of 0.15 is not
		expect(givers(board, start, [{ ...over, y1: 9.65, y2: 9.65 }])).toEqual([]);
		const by_hand = { ...board, tracks: board.tracks.map((t) => ({ ...t, by_hand: true })) };
		expect(givers(by_hand, start, [over])).toEqual([]);
		expect(clearance(by_hand, start, over, true).words).toBe("a track of B");
		const pierced = { ...board, vias: [{ net: "C", x: 3, y: 9.7, stitch: false, by_hand: false }] };
		expect(givers(pierced, start, [{ ...over, far: true }])).toEqual(["C"]);
	});
});

describe("a corner dragged", () => {
	const bent = {
		...board,
		vias: [
			{ net: "A", x: 4, y: 4, stitch: false, by_hand: false },
			{ net: "A", x: 20, y: 20, stitch: true, by_hand: false },
		],
		tracks: [
			{ net: "A", far: false, x1: 0, y1: 0, x2: 4, y2: 4, w: 0.2, by_hand: false },
			{ net: "A", far: true, x1: 4, y1: 4, x2: 10, y2: 3, w: 0.3, by_hand: false },
			{ net: "A", far: true, x1: 10, y1: 3, x2: 12, y2: 3, w: 0.3, by_hand: false },
			{ net: "B", far: false, x1: 4, y1: 4, x2: 9, y2: 9, w: 0.2, by_hand: false },
		],
	} as unknown as Board;

	it("is the nearest end of a track of the net on that side", () => {
		expect(cornerAt(bent, { x: 3.9, y: 4.1 }, "A", "near", 0.5)).toEqual({ x: 4, y: 4 });
		expect(cornerAt(bent, { x: 10.1, y: 3 }, "A", "far", 0.5)).toEqual({ x: 10, y: 3 });
		expect(cornerAt(bent, { x: 10.1, y: 3 }, "A", "near", 0.5)).toBeNull();
		expect(cornerAt(bent, { x: 3, y: 3 }, "A", "near", 0.5)).toBeNull();
	});
	it("brings its via and the tracks of both sides along, and nothing of other nets", () => {
		const found = dragged(bent, "A", "near", { x: 4, y: 4 }, { x: 5, y: 4 });
		expect(found.vias).toEqual([{ x: 5, y: 4 }]);
		expect(found.tracks).toHaveLength(3);
		expect(found.moved).toEqual([
			{ far: false, w: 0.2, x1: 0, y1: 0, x2: 5, y2: 4 },
			{ far: true, w: 0.3, x1: 5, y1: 4, x2: 10, y2: 3 },
		]);
		expect(found.width).toBe(0.3);
	});
	it("takes no stitch of a pour for wiring", () => {
		expect(viasOf(bent, "A")).toEqual([{ net: "A", x: 4, y: 4, stitch: false, by_hand: false }]);
	});
	it("leaves the other side alone where no via stands", () => {
		const found = dragged(bent, "A", "far", { x: 10, y: 3 }, { x: 10, y: 5 });
		expect(found.moved).toHaveLength(2);
		expect(found.vias).toEqual([{ x: 4, y: 4, net: "A" }].map(({ x, y }) => ({ x, y })));
	});
	it("is kept as all that the net has", () => {
		const { tracks, vias } = dragged(bent, "A", "far", { x: 10, y: 3 }, { x: 10, y: 5 });
		const edit = laid("main", "A", tracks, vias);
		expect(edit).toMatchObject({ kind: "lay-net", board: "main", net: "A", vias: [{ x_nm: 4e6, y_nm: 4e6 }] });
		expect((edit as { tracks: { y2_nm: number; width_nm: number }[] }).tracks[1]).toMatchObject({
			x2_nm: 10e6,
			y2_nm: 5e6,
			width_nm: 300_000,
		});
	});
});
