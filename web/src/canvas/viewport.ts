/** Where the board is on the canvas: `scale` pixels a millimetre, (x, y) the canvas place of the board's lower left corner. */
export type Viewport = { scale: number; x: number; y: number; mirrored: boolean; width: number };
export type Place = { x: number; y: number };

/** A view that shows a board of w x h mm whole, with a margin in pixels. */
export function fitView(
	w: number,
	h: number,
	canvasW: number,
	canvasH: number,
	mirrored: boolean,
	margin = 34,
): Viewport {
	const scale = Math.max(1, Math.min((canvasW - 2 * margin) / w, (canvasH - 2 * margin) / h));
	return { scale, x: (canvasW - w * scale) / 2, y: (canvasH + h * scale) / 2, mirrored, width: w };
}

export function toScreen(view: Viewport, place: Place): Place {
	const x = view.mirrored ? view.width - place.x : place.x;
	return { x: view.x + x * view.scale, y: view.y - place.y * view.scale };
}

export function toBoard(view: Viewport, place: Place): Place {
	const x = (place.x - view.x) / view.scale;
	return { x: view.mirrored ? view.width - x : x, y: (view.y - place.y) / view.scale };
}

/** Zoom by a factor about a canvas place, which stays where it is. */
export function zoomAt(view: Viewport, place: Place, factor: number): Viewport {
	const scale = Math.min(400, Math.max(1.5, view.scale * factor));
	const by = scale / view.scale;
	return { ...view, scale, x: place.x - (place.x - view.x) * by, y: place.y - (place.y - view.y) * by };
}

type Flash = { shape: string; x: number; y: number; w: number; h: number; turn: number };

/** The edge of a pad as a path, in screen pixels: round, or a box turned against the clock by `turn` degrees. */
export function tracePad(ctx: CanvasRenderingContext2D, view: Viewport, pad: Flash): void {
	ctx.beginPath();
	if (pad.shape === "round") {
		const p = toScreen(view, pad);
		ctx.arc(p.x, p.y, (pad.w / 2) * view.scale, 0, 2 * Math.PI);
		return;
	}
	corners(pad).forEach((corner, index) => {
		const p = toScreen(view, corner);
		if (index) ctx.lineTo(p.x, p.y);
		else ctx.moveTo(p.x, p.y);
	});
	ctx.closePath();
}

/** The four corners of a box pad in mm, the first at its lower left before turning. */
export function corners(pad: Omit<Flash, "shape">): Place[] {
	const [c, s] = [Math.cos((pad.turn * Math.PI) / 180), Math.sin((pad.turn * Math.PI) / 180)];
	return [
		[-0.5, -0.5],
		[0.5, -0.5],
		[0.5, 0.5],
		[-0.5, 0.5],
	].map(([u = 0, v = 0]) => ({
		x: pad.x + u * pad.w * c - v * pad.h * s,
		y: pad.y + u * pad.w * s + v * pad.h * c,
	}));
}
