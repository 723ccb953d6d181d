import { describe, expect, it } from "vitest";
import type { Board } from "./board";
import { fromSegment, hitBoard, linkChange, linksOf, partAt, roomAround } from "./boardGeometry";

const part = (ref: string, x: number, y: number, half: number, far = false) => ({
	ref,
	role: ref,
	purpose: "part",
	x,
	y,
	turn: 0,
	far,
	locked: false,
	by_hand: false,
	yard: [-half, -half, half, half] as [number, number, number, number],
	body: [-half, -half, half, half] as [number, number, number, number],
	height: 1,
});
const pad = (ref: string, number: string, net: string, x: number, y: number) => ({
	ref,
	pad: number,
	net,
	sides: ["near"],
	shape: "box",
	x,
	y,
	w: 1,
	h: 1,
	turn: 0,
	drill: 0,
});
const board: Board = {
	board: "main",
	boards: ["main"],
	outline: [
		[0, 0],
		[40, 0],
		[40, 30],
		[0, 30],
	],
	parts: [part("A1", 5, 5, 2), part("B2", 15, 5, 3), part("C3", 5, 5, 4, true)],
	pads: [
		pad("A1", "1", "LAMP", 4, 5),
		pad("A1", "2", "GROUND", 6, 5),
		pad("B2", "1", "LAMP", 13, 5),
		pad("B2", "2", "GROUND", 17, 5),
	],
	tracks: [{ net: "LAMP", far: true, x1: 20, y1: 10, x2: 30, y2: 10, w: 0.2, by_hand: false }],
	links: [],
	vias: [{ net: "LAMP", x: 20, y: 10, stitch: false, by_hand: false }],
	pieces: [],
	areas: [],
	tear_drops: false,
	planes: [],
	openings: [],
	kept: [],
	holes: [],
	covers: [],
	thickness_mm: 1.6,
	via_mm: 0.6,
	via_hole_mm: 0.3,
	gap_mm: 0.15,
	routed: false,
	poured: false,
	stale: [],
	workings: [],
};

describe("what lies where", () => {
	it("finds pad before part, via on both sides, tracks on their own", () => {
		expect(hitBoard(board, { x: 4.2, y: 5 }, "near", 0)?.words).toBe("A1 pad 1");
		expect(hitBoard(board, { x: 5, y: 6.5 }, "near", 0)?.part).toBe("A1");
		expect(hitBoard(board, { x: 20, y: 10 }, "near", 0)?.net).toBe("LAMP");
		expect(hitBoard(board, { x: 25, y: 10.05 }, "near", 0)).toBeNull();
		expect(hitBoard(board, { x: 25, y: 10.05 }, "far", 0)?.words).toContain("0.20 mm");
	});
	it("keeps sides apart", () => {
		expect(partAt(board, { x: 5, y: 5 }, "far")?.ref).toBe("C3");
		expect(partAt(board, { x: 39, y: 29 }, "near")).toBeNull();
	});
	it("measures from a segment, its ends included", () => {
		expect(fromSegment({ x: 0, y: 3 }, { x1: 4, y1: 0, x2: 9, y2: 0 })).toBe(5);
		expect(fromSegment({ x: 5, y: 2 }, { x1: 4, y1: 0, x2: 9, y2: 0 })).toBe(2);
		expect(fromSegment({ x: 1, y: 0 }, { x1: 1, y1: 1, x2: 1, y2: 1 })).toBe(1);
	});
});

describe("a part in the hand", () => {
	const first = board.parts[0];
	if (!first) throw new Error("no part");
	it("knows what a move does to its links, ground left out", () => {
		expect(linkChange(board, first, 0, 0)).toEqual({ before: 9, after: 9 });
		expect(linkChange(board, first, 5, 0)).toEqual({ before: 9, after: 4 });
		expect(linkChange(board, first, 9, 3)).toEqual({ before: 9, after: 3 });
	});
	it("knows its room, and by how much it overlaps", () => {
		expect(roomAround(board, first, 0, 0)).toEqual({ gap: 5, ref: "B2" });
		expect(roomAround(board, first, 6, 0).gap).toBeCloseTo(-1);
		expect(roomAround(board, first, 0, 9).gap).toBeCloseTo(Math.hypot(5, 4));
	});
	it("draws its links to other parts, ground left out", () => {
		expect(linksOf(board, "A1", 1, 0)).toEqual([{ from: { x: 5, y: 5 }, to: { x: 13, y: 5 }, net: "LAMP" }]);
	});
});
