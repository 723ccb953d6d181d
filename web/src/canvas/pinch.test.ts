import { describe, expect, it } from "vitest";
import { pinched } from "./pinch";
import { toScreen } from "./viewport";

const view = { scale: 10, x: 100, y: 400, mirrored: false, width: 60 };

describe("two fingers", () => {
	it("zoom as far as they part and keep what lies between them", () => {
		const next = pinched(
			view,
			[
				{ x: 200, y: 300 },
				{ x: 300, y: 300 },
			],
			[
				{ x: 150, y: 300 },
				{ x: 350, y: 300 },
			],
		);
		expect(next.scale).toBe(20);
		expect(toScreen(next, { x: 15, y: 10 })).toEqual({ x: 250, y: 300 });
	});

	it("carry the board along where they move together", () => {
		const next = pinched(
			view,
			[
				{ x: 200, y: 300 },
				{ x: 300, y: 300 },
			],
			[
				{ x: 220, y: 290 },
				{ x: 320, y: 290 },
			],
		);
		expect(next).toEqual({ ...view, x: 120, y: 390 });
	});

	it("do nothing on one spot, or alone", () => {
		const spot = { x: 5, y: 5 };
		expect(pinched(view, [spot, spot], [spot, { x: 90, y: 5 }])).toBe(view);
		expect(pinched(view, [spot], [spot])).toBe(view);
	});
});
