export type PinSpot = { x: number; y: number; side: "left" | "bottom" | "right" | "top" };

/** Where pin `index` (from 0) of `count` sits around a body of `size`, numbered anticlockwise from the top left as seen from above. */
export function pinSpot(index: number, count: number, sides: 2 | 4, size: { w: number; h: number }): PinSpot {
	const each = Math.ceil(count / sides);
	const place = index % each;
	const side = Math.floor(index / each);
	const along = (place + 0.5) / each;
	if (sides === 2)
		return side === 0
			? { x: 0, y: along * size.h, side: "left" }
			: { x: size.w, y: (1 - along) * size.h, side: "right" };
	switch (side) {
		case 0:
			return { x: 0, y: along * size.h, side: "left" };
		case 1:
			return { x: along * size.w, y: size.h, side: "bottom" };
		case 2:
			return { x: size.w, y: (1 - along) * size.h, side: "right" };
		default:
			return { x: (1 - along) * size.w, y: 0, side: "top" };
	}
}
