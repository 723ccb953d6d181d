import { useCallback } from "react";
import * as three from "three";
import { SolidView } from "../../app/SolidView";
import { lifted, paintOf, type Spot, type Stack } from "./stack";

const RESOLVED: Record<string, string> = { "var(--color-copper)": "#b25a24" };

function flat(ring: readonly Spot[]): three.Shape {
	return new three.Shape(ring.map(([x, y]) => new three.Vector2(x, y)));
}

function body(shape: three.Shape, low: number, high: number, colour: string, name: string, opacity = 1): three.Group {
	const form = new three.ExtrudeGeometry(shape, { depth: Math.max(high - low, 0.05), bevelEnabled: false });
	form.translate(0, 0, low);
	const made = new three.Group();
	const paint = new three.MeshLambertMaterial({
		color: colour,
		transparent: opacity < 1,
		opacity,
		depthWrite: opacity === 1,
	});
	const mesh = new three.Mesh(form, paint);
	mesh.userData.part = name;
	made.add(mesh);
	made.add(
		new three.LineSegments(
			new three.EdgesGeometry(form, 30),
			new three.LineBasicMaterial({ color: "#23211d", transparent: true, opacity: 0.4 }),
		),
	);
	return made;
}

/** All bodies of a stack with its shell, taken apart by so many mm between layers. */
export function stackSolid(stack: Stack, apart: number): three.Group {
	const group = new three.Group();
	group.add(body(flat(stack.outline as Spot[]), 0, stack.board_mm, "#d8c894", "board"));
	for (const piece of stack.pieces)
		for (const ring of piece.rings) {
			const by = lifted(piece, apart);
			const colour = RESOLVED[paintOf(piece.sort)] ?? paintOf(piece.sort);
			group.add(body(flat(ring as Spot[]), piece.low_mm + by, piece.high_mm + by, colour, piece.words));
		}
	const [back, front] = [-stack.far_room_mm - 2 * apart, stack.board_mm + stack.near_room_mm + 2.2 * apart];
	group.add(body(flat(stack.inside as Spot[]), back - stack.wall_mm, back, "#bdb39b", "back of the shell"));
	group.add(body(flat(stack.inside as Spot[]), front, front + stack.wall_mm, "#bdb39b", "front of the shell", 0.35));
	for (const plug of stack.plugs)
		group.add(body(flat(plug.ring as Spot[]), plug.low_mm, plug.high_mm, "#7d8ea3", plug.words, 0.6));
	return group;
}

/** The device taken apart. */
export default function StackSolid({ stack, apart }: { stack: Stack; apart: number }) {
	const build = useCallback(() => stackSolid(stack, apart), [stack, apart]);
	return <SolidView build={build} label={`${stack.board}, taken apart`} words={(name) => name} />;
}
