import { describe, expect, it } from "vitest";
import { corners, fitView, toBoard, toScreen, zoomAt } from "./viewport";

describe("viewport", () => {
	for (const mirrored of [false, true]) {
		const view = fitView(64, 42, 800, 600, mirrored);
		it(`shows the whole board and comes back (mirrored: ${mirrored})`, () => {
			for (const place of [
				{ x: 0, y: 0 },
				{ x: 64, y: 42 },
				{ x: 12.3, y: 4.56 },
			]) {
				const screen = toScreen(view, place);
				expect(screen.x).toBeGreaterThanOrEqual(0);
				expect(screen.x).toBeLessThanOrEqual(800);
				expect(toBoard(view, screen).x).toBeCloseTo(place.x, 9);
				expect(toBoard(view, screen).y).toBeCloseTo(place.y, 9);
			}
		});
		it(`keeps the place under the pointer while zooming (mirrored: ${mirrored})`, () => {
			const pointer = { x: 300, y: 200 };
			const zoomed = zoomAt(view, pointer, 1.5);
			expect(toBoard(zoomed, pointer).x).toBeCloseTo(toBoard(view, pointer).x, 9);
			expect(zoomed.scale).toBeCloseTo(view.scale * 1.5, 9);
		});
	}
	it("does not zoom out of sight", () => {
		const view = fitView(64, 42, 800, 600, false);
		expect(zoomAt(view, { x: 0, y: 0 }, 1e9).scale).toBe(400);
		expect(zoomAt(view, { x: 0, y: 0 }, 1e-9).scale).toBe(1.5);
	});
	it("mirrors left and right only", () => {
		const [plain, mirrored] = [fitView(64, 42, 800, 600, false), fitView(64, 42, 800, 600, true)];
		expect(toScreen(mirrored, { x: 0, y: 5 })).toEqual(toScreen(plain, { x: 64, y: 5 }));
	});
});

it("a pad turned against the clock by 90 degrees has its lower left corner at its lower right", () => {
	const [first] = corners({ x: 10, y: 20, w: 4, h: 2, turn: 90 });
	expect(first?.x).toBeCloseTo(11);
	expect(first?.y).toBeCloseTo(18);
});
