import * as three from "three";
import type { Board } from "../../canvas/board";

const COLOUR = {
	board: "#d8c894",
	copper: "#b25a24",
	chip: "#3a3934",
	part: "#c9bfa6",
	tall: "#8d8676",
	cover: "#2b7f78",
};
const COPPER_MM = 0.05;

/** The outline with its openings and drilled holes as a flat shape. */
export function shapeOf(board: Board): three.Shape {
	const shape = new three.Shape(board.outline.map(([x, y]) => new three.Vector2(x, y)));
	for (const ring of board.openings) shape.holes.push(new three.Path(ring.map(([x, y]) => new three.Vector2(x, y))));
	for (const hole of board.holes) {
		const round = new three.Path();
		round.absarc(hole.x, hole.y, hole.d / 2, 0, 2 * Math.PI, true);
		shape.holes.push(round);
	}
	return shape;
}

/** Where a side's copper lies above the middle of the board, in mm. */
function level(board: Board, far: boolean): number {
	return (far ? -1 : 1) * (board.thickness_mm / 2 + COPPER_MM);
}

/** Every track as a flat strip of two triangles, both sides in one geometry. */
export function strips(board: Board): Float32Array {
	const points: number[] = [];
	for (const t of board.tracks) {
		const long = Math.hypot(t.x2 - t.x1, t.y2 - t.y1) || 1;
		const [ux, uy] = [((t.x2 - t.x1) / long) * (t.w / 2), ((t.y2 - t.y1) / long) * (t.w / 2)];
		const z = level(board, t.far);
		const a = [t.x1 - ux - uy, t.y1 - uy + ux];
		const b = [t.x2 + ux - uy, t.y2 + uy + ux];
		const c = [t.x2 + ux + uy, t.y2 + uy - ux];
		const d = [t.x1 - ux + uy, t.y1 - uy - ux];
		for (const [x = 0, y = 0] of [a, c, b, a, d, c]) points.push(x, y, z);
	}
	return new Float32Array(points);
}

/** The board with its copper, parts at their true heights, and modules that hang over it; x to the right, y up, z to the near side, in mm. */
export function solidOf(board: Board): three.Group {
	const group = new three.Group();
	const flat = new three.ExtrudeGeometry(shapeOf(board), {
		depth: board.thickness_mm,
		bevelEnabled: false,
		curveSegments: 24,
	});
	flat.translate(0, 0, -board.thickness_mm / 2);
	group.add(new three.Mesh(flat, new three.MeshLambertMaterial({ color: COLOUR.board })));
	const copper = new three.MeshLambertMaterial({ color: COLOUR.copper, side: three.DoubleSide });
	const tracks = new three.BufferGeometry();
	tracks.setAttribute("position", new three.BufferAttribute(strips(board), 3));
	tracks.computeVertexNormals();
	group.add(new three.Mesh(tracks, copper));
	for (const pad of board.pads)
		for (const far of [false, true]) {
			if (!pad.sides.includes(far ? "far" : "near")) continue;
			const face =
				pad.shape === "round" ? new three.CircleGeometry(pad.w / 2, 20) : new three.PlaneGeometry(pad.w, pad.h);
			const mesh = new three.Mesh(face, copper);
			mesh.rotation.z = (pad.turn * Math.PI) / 180;
			mesh.position.set(pad.x, pad.y, level(board, far) * 1.01);
			group.add(mesh);
		}
	for (const part of board.parts) {
		if (!part.height) continue;
		const [left, bottom, right, top] = part.body;
		const colour = part.ref.startsWith("U") ? COLOUR.chip : part.height > 3 ? COLOUR.tall : COLOUR.part;
		const middle = ((part.far ? -1 : 1) * (board.thickness_mm + part.height)) / 2;
		const body = slab(right - left, top - bottom, part.height, new three.MeshLambertMaterial({ color: colour }));
		body.position.set(part.x + (left + right) / 2, part.y + (bottom + top) / 2, middle);
		for (const piece of body.children) piece.userData.part = part.ref;
		group.add(body);
	}
	for (const cover of board.covers) {
		const [left, bottom, right, top] = cover.rect;
		const glass = new three.MeshLambertMaterial({
			color: COLOUR.cover,
			transparent: true,
			opacity: 0.28,
			depthWrite: false,
		});
		const module = slab(right - left, top - bottom, 1.6, glass);
		module.position.set((left + right) / 2, (bottom + top) / 2, board.thickness_mm / 2 + cover.above - 0.8);
		group.add(module);
	}
	return group;
}

/** A block with its edges drawn. */
function slab(w: number, h: number, depth: number, material: three.Material): three.Group {
	const block = new three.BoxGeometry(Math.max(w, 0.1), Math.max(h, 0.1), depth);
	const made = new three.Group();
	made.add(new three.Mesh(block, material));
	made.add(
		new three.LineSegments(
			new three.EdgesGeometry(block),
			new three.LineBasicMaterial({ color: "#23211d", transparent: true, opacity: 0.45 }),
		),
	);
	return made;
}
