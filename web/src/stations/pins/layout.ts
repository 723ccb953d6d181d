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

export type Ball = { x: number; y: number };

/** Where each ball of a grid package sits (columns and rows from 0, seen from above), or null where the pins are not balls. */
export function ballGrid(numbers: string[]): Map<string, Ball> | null {
	const cells = numbers.map((number) => /^([A-Z]{1,2})(\d{1,2})$/.exec(number));
	if (cells.length === 0 || cells.some((cell) => cell === null)) return null;
	const rows = [...new Set(cells.map((cell) => cell?.[1] ?? ""))].sort(
		(a, b) => a.length - b.length || (a < b ? -1 : 1),
	);
	const columns = [...new Set(cells.map((cell) => Number(cell?.[2])))].sort((a, b) => a - b);
	return new Map(
		numbers.map((number, index) => [
			number,
			{ x: columns.indexOf(Number(cells[index]?.[2])), y: rows.indexOf(cells[index]?.[1] ?? "") },
		]),
	);
}
