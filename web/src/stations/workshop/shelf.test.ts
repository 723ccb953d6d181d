import { describe, expect, it } from "vitest";
import { type Card, chosen } from "./shelf";

const card = (id: number, more: Partial<Card>): Card => ({
	id,
	name: `n${id}`,
	purpose: "",
	revision: "A",
	controls: 1,
	chip: "c",
	width_mm: 1,
	height_mm: 1,
	quantity: 1,
	wanted_by: "2027-01-01",
	stops: 0,
	todo: 0,
	next: "",
	version: 1,
	pictured: false,
	jobs: [],
	readable: true,
	next_station: "brief",
	demo: false,
	kept: "shelf",
	changed: "2026-11-01T00:00:00Z",
	...more,
});
const names = (cards: Card[]) => cards.map((c) => c.id);

describe("what lies on the shelf", () => {
	const all = [
		card(1, { name: "Dome", stops: 2, wanted_by: "2027-03-01" }),
		card(2, { name: "Arc", purpose: "for the dome", changed: "2026-11-03T00:00:00Z" }),
		card(3, { name: "Dome old", kept: "archive" }),
	];
	it("is of one place only", () => {
		expect(names(chosen(all, "shelf", "", "name"))).toEqual([2, 1]);
		expect(names(chosen(all, "archive", "", "name"))).toEqual([3]);
		expect(chosen(all, "removed", "", "name")).toEqual([]);
	});
	it("holds every word somewhere", () => {
		expect(names(chosen(all, "shelf", "DOME", "name"))).toEqual([2, 1]);
		expect(names(chosen(all, "shelf", "dome arc", "name"))).toEqual([2]);
	});
	it("comes in the order asked for", () => {
		expect(names(chosen(all, "shelf", "", "changed"))).toEqual([2, 1]);
		expect(names(chosen(all, "shelf", "", "wanted"))).toEqual([2, 1]);
		expect(names(chosen(all, "shelf", "", "stops"))).toEqual([2, 1]);
	});
});
