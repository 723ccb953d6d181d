import type { Schemas } from "../../api/client";

export type House = Schemas["House"];
export type Supplier = Schemas["Supplier"];
export type Quote = Schemas["QuoteSeen"];

/** Under which the houses and suppliers of the shelf are kept. */
export const HOUSES = ["shelf", "houses"];
export const SUPPLIERS = ["shelf", "suppliers"];
export const PASTES = ["shelf", "pastes"];

/** A name as an id takes it: small letters, digits, dashes. */
export function idOf(sort: "house" | "supplier" | "paste", name: string, taken: readonly string[]): string {
	const stem =
		name
			.toLowerCase()
			.normalize("NFKD")
			.replace(/[^a-z0-9]+/g, "-")
			.replace(/^-+|-+$/g, "")
			.slice(0, 40) || sort;
	let id = `${sort}/${stem}`;
	for (let n = 2; taken.includes(id); n++) id = `${sort}/${stem}-${n}`;
	return id;
}

/** A list as it is typed: names or numbers parted by commas. */
export const namesIn = (text: string) =>
	text
		.split(",")
		.map((word) => word.trim())
		.filter(Boolean);
export const numbersIn = (text: string) =>
	namesIn(text)
		.map(Number)
		.filter((n) => Number.isFinite(n));

/** Pairs as they are typed, one a line: `5 = 1`, `20 = 0.86`; lines that cannot be read by number. */
export function pairsIn(text: string): { pairs: [string, number][]; bad: number[] } {
	const pairs: [string, number][] = [];
	const bad: number[] = [];
	text.split("\n").forEach((line, index) => {
		if (!line.trim()) return;
		const at = line.lastIndexOf("=");
		const value = Number(line.slice(at + 1).replace(",", "."));
		const name = line.slice(0, at).trim();
		if (at < 1 || !name || line.slice(at + 1).trim() === "" || !Number.isFinite(value)) bad.push(index + 1);
		else pairs.push([name, value]);
	});
	return { pairs, bad };
}

export const pairLines = (pairs: readonly (readonly [string | number, number])[]) =>
	pairs.map(([name, value]) => `${name} = ${value}`).join("\n");

/** A house with the prices that its quotes tell. */
export function priced(house: House, learnt: Schemas["Learnt"], quotes: Quote[]): House {
	const finish: Record<string, number> = {};
	const colour: Record<string, number> = {};
	const base: Partial<House> = { inner_cents_dm2: 0, piece_cents: 0, thin_cents: 0 };
	for (const [name, cents] of Object.entries(learnt.prices)) {
		const value = Math.round(cents * 1000) / 1000;
		if (name.startsWith("finish ")) finish[name.slice(7)] = value;
		else if (name.startsWith("colour ")) colour[name.slice(7)] = value;
		else (base as Record<string, number>)[name] = value;
	}
	// What no quote has is not offered: nobody knows its price.
	const seen = (pick: (quote: Quote) => string, offered: string[]) => {
		const named = [...new Set(quotes.map(pick).filter(Boolean))];
		return named.length ? named : offered.slice(0, 1);
	};
	const numbers = (pick: (quote: Quote) => number) => [...new Set(quotes.map(pick))].sort((a, b) => a - b);
	const finishes = seen((q) => q.finish, house.finishes);
	const colours = seen((q) => q.colour, house.colours);
	return {
		...house,
		...base,
		known: "learnt",
		quotes,
		within_cents: learnt.within_cents,
		breaks: [[1, 1]],
		finishes,
		colours,
		finish_cents: finish,
		colour_cents: colour,
		copper_layers: numbers((q) => q.copper_layers),
		thickness_um: numbers((q) => q.thickness_um),
		copper_um: [35],
	};
}

/** A house of which nothing is known yet: usual limits, no price. */
export function blankHouse(like: House, id: string): House {
	return {
		...like,
		id,
		name: "",
		about: "",
		known: "typed",
		quotes: [],
		within_cents: 0,
		setup_cents: 0,
		area_cents_dm2: 0,
		inner_cents_dm2: 0,
		piece_cents: 0,
		thin_cents: 0,
		heavy_cents_dm2: 0,
		finishes: like.finishes.slice(0, 1),
		colours: like.colours.slice(0, 1),
		finish_cents: {},
		colour_cents: {},
		copper_layers: [2],
		thickness_um: [1600],
		copper_um: [35],
		breaks: [[1, 1]],
		shipping: [{ name: "parcel", cents: 0, days: 5 }],
		stencil_cents: 0,
		frame_cents: 0,
		fit_setup_cents: 0,
		fit_cents: 0,
		fit_days: 0,
		panel_cents: {},
		duty_share: 0,
		vat_share: 0,
		closed_on: [],
		asks: "",
		late_days: 0,
	};
}
