import type { Part } from "../../canvas/board";

const GRID_MM = 0.25;

/** The least steps across and up (mm, on a grid of 0.25) at which parts, turned like the first, keep their courtyards to themselves; of slanted ones the longer side counts both ways. */
export function rowSteps(parts: Pick<Part, "yard" | "turn">[]) {
	const first = parts[0]?.turn ?? 0;
	const sizes = parts.map(({ yard: [left, bottom, right, top], turn }) => {
		const [w, h] = [right - left, top - bottom];
		const turned = (((turn - first) % 180) + 180) % 180;
		if (turned % 90) return { w: Math.max(w, h), h: Math.max(w, h) };
		return turned ? { w: h, h: w } : { w, h };
	});
	const step = (most: number) => Math.ceil(most / GRID_MM - 1e-6) * GRID_MM;
	return { across: step(Math.max(0, ...sizes.map((s) => s.w))), up: step(Math.max(0, ...sizes.map((s) => s.h))) };
}
