import { type Place, type Viewport, zoomAt } from "./viewport";

/** Fingers on a canvas by the number of their pointer. */
export type Fingers = Map<number, Place>;

/** The view after one of two fingers has moved: what lay between them stays between them, as much larger as they are further apart. */
export function pinched(view: Viewport, before: Place[], after: Place[]): Viewport {
	const [a, b, c, d] = [before[0], before[1], after[0], after[1]];
	if (!a || !b || !c || !d) return view;
	const apart = Math.hypot(a.x - b.x, a.y - b.y);
	if (apart < 1) return view;
	const [from, to] = [middle(a, b), middle(c, d)];
	const zoomed = zoomAt(view, from, Math.hypot(c.x - d.x, c.y - d.y) / apart);
	return { ...zoomed, x: zoomed.x + to.x - from.x, y: zoomed.y + to.y - from.y };
}

const middle = (a: Place, b: Place): Place => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
