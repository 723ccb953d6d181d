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
