/** How links are drawn by what they carry: colour and dash together, so that they can be told apart without colour. */
const STYLES: Record<string, { stroke: string; strokeWidth: number; strokeDasharray?: string }> = {
	"key or input": { stroke: "var(--color-line)", strokeWidth: 1.3 },
	drive: { stroke: "var(--color-legend)", strokeWidth: 1.5, strokeDasharray: "9 3" },
	pulses: { stroke: "var(--color-legend)", strokeWidth: 1.5, strokeDasharray: "9 3 2 3" },
	analogue: { stroke: "var(--color-patina)", strokeWidth: 1.7, strokeDasharray: "5 3" },
	bus: { stroke: "var(--color-copper)", strokeWidth: 2.2 },
	service: { stroke: "var(--color-line)", strokeWidth: 1.3, strokeDasharray: "2 3" },
};
export const LINES = Object.keys(STYLES);

/** The stroke of a link. */
export function styleOf(line: string) {
	return STYLES[line] ?? { stroke: "var(--color-line)", strokeWidth: 1.3 };
}
