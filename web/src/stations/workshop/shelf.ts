import type { Schemas } from "../../api/client";

export type Card = Schemas["ProjectCard"];
export type Kept = Card["kept"];
export const SORTS = [
	["changed", "changed last"],
	["name", "name"],
	["wanted", "wanted first"],
	["stops", "fewest stops"],
] as const;
export type Sort = (typeof SORTS)[number][0];

/** The projects of one place whose name, purpose or chip holds every word, in the order that is asked for. */
export function chosen(cards: Card[], kept: Kept, words: string, sort: Sort): Card[] {
	const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
	const holds = (card: Card) => {
		const text = `${card.name} ${card.purpose} ${card.chip}`.toLowerCase();
		return wanted.every((word) => text.includes(word));
	};
	return cards.filter((card) => card.kept === kept && holds(card)).sort((a, b) => order(a, b, sort) || a.id - b.id);
}

function order(a: Card, b: Card, sort: Sort): number {
	switch (sort) {
		case "changed":
			return b.changed.localeCompare(a.changed);
		case "name":
			return a.name.localeCompare(b.name);
		case "wanted":
			return a.wanted_by.localeCompare(b.wanted_by);
		case "stops":
			return a.stops - b.stops;
	}
}
