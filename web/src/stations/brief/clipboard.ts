import type { Schemas } from "../../api/client";

export type PlainThing = NonNullable<Schemas["Brief"]["things"]>[number];
const MARK = "loquet-things";

/** Things as text for the clipboard. */
export function asText(things: PlainThing[]): string {
	return JSON.stringify({ [MARK]: things });
}

/** Things that a clipboard's text holds, or nothing where it holds something else. */
export function asThings(text: string): PlainThing[] | null {
	try {
		const read: unknown = JSON.parse(text);
		const found = (read as Record<string, unknown> | null)?.[MARK];
		return Array.isArray(found) && found.length > 0 ? (found as PlainThing[]) : null;
	} catch {
		return null;
	}
}

/** How far things move so that their middle comes to a spot, in mm to half a millimetre; 10 mm aside where no spot is known. */
export function shiftTo(things: PlainThing[], spot: { x: number; y: number } | null): { dx_mm: number; dy_mm: number } {
	const places = things.flatMap((thing) => (thing.place ? [thing.place] : []));
	if (!spot || places.length === 0) return { dx_mm: 10, dy_mm: 0 };
	const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
	const half = (value: number) => Math.round(value * 2) / 2;
	return {
		dx_mm: half(spot.x - middle(places.map((p) => p.x_mm))),
		dy_mm: half(spot.y - middle(places.map((p) => p.y_mm))),
	};
}
