/** A picture of all that does not move, larger than the canvas all around, so that it can be pulled about without being drawn again. */
export type Still = { canvas: HTMLCanvasElement; about: readonly unknown[]; x: number; y: number; room: Room };
export type Room = { x: number; y: number };
export type Kept = { still: Still | null };

const SHARE = 0.25;

/** How far the picture reaches beyond a canvas of this size, on each side, in pixels. */
export const roomOf = (w: number, h: number): Room => ({ x: Math.round(w * SHARE), y: Math.round(h * SHARE) });

/** How far a picture must be shifted for a view at (x, y), or nothing where it is of something else or does not reach that far. */
export function shiftOf(
	still: Pick<Still, "about" | "x" | "y" | "room"> | null,
	about: readonly unknown[],
	x: number,
	y: number,
): { dx: number; dy: number } | null {
	if (!still || still.about.length !== about.length) return null;
	if (about.some((value, index) => value !== still.about[index])) return null;
	const [dx, dy] = [x - still.x, y - still.y];
	return Math.abs(dx) <= still.room.x && Math.abs(dy) <= still.room.y ? { dx, dy } : null;
}

/** Draw what does not move: from the picture that is kept while it serves, else anew. `draw` is told how far its own place lies from the canvas. */
export function paintStill(
	ctx: CanvasRenderingContext2D,
	kept: Kept,
	about: readonly unknown[],
	at: { x: number; y: number },
	w: number,
	h: number,
	draw: (pen: CanvasRenderingContext2D, room: Room) => void,
): void {
	const ratio = window.devicePixelRatio || 1;
	const all = [...about, w, h, ratio, document.fonts.status];
	let shift = shiftOf(kept.still, all, at.x, at.y);
	const room = roomOf(w, h);
	if (!shift) {
		const canvas = kept.still?.canvas ?? document.createElement("canvas");
		canvas.width = Math.round((w + 2 * room.x) * ratio);
		canvas.height = Math.round((h + 2 * room.y) * ratio);
		const pen = canvas.getContext("2d");
		if (!pen) {
			draw(ctx, { x: 0, y: 0 });
			return;
		}
		pen.setTransform(ratio, 0, 0, ratio, 0, 0);
		draw(pen, room);
		kept.still = { canvas, about: all, x: at.x, y: at.y, room };
		shift = { dx: 0, dy: 0 };
	}
	const still = kept.still;
	if (!still) return;
	// By whole points of the screen: half a point would blur it.
	const points = (px: number) => Math.round(px * ratio) / ratio;
	ctx.drawImage(still.canvas, points(shift.dx) - room.x, points(shift.dy) - room.y, w + 2 * room.x, h + 2 * room.y);
}
