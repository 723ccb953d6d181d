import type { Schemas } from "../../api/client";

export type Kind = Schemas["KindView"];
export type Field = Schemas["FieldView"];
export type Thing = Schemas["DrawnThing"];

export const GROUPS = [
	["controls", "Controls"],
	["shows", "Shows"],
	["sounds", "Sounds"],
	["feeds", "Feeds"],
	["ports", "Ports"],
	["brains", "Brains"],
	["senses", "Senses"],
	["own", "Own"],
	["marks", "Marks"],
] as const;

/** A free name for a new thing of a kind: its plain word, else numbered. */
export function freeName(word: string, taken: string[]): string {
	const used = new Set(taken.map((name) => name.toLowerCase()));
	if (word !== "button" && !used.has(word)) return word;
	for (let number = word === "button" ? 1 : 2; ; number++) {
		const name = `${word === "button" ? "key" : word} ${number}`;
		if (!used.has(name)) return name;
	}
}

/** A number as people type it: comma or point, with or without the field's own unit; null where it is none. */
export function typedNumber(text: string, unit: string): number | null {
	const plain = text.trim().replace(",", ".").toLowerCase();
	const found = /^(-?\d+(?:\.\d+)?)\s*([a-zµ°]*)$/.exec(plain);
	if (!found) return null;
	const value = Number(found[1]);
	const given = found[2] ?? "";
	if (!given || given === unit.toLowerCase()) return value;
	if (unit === "mm" && given === "cm") return value * 10;
	if (unit === "mm" && given === "in") return value * 25.4;
	return null;
}

/** Whether a field means something with the values that other fields have now. */
export function means(
	field: Field,
	values: Readonly<Record<string, unknown>>,
	usual: Readonly<Record<string, unknown>>,
): boolean {
	return Object.entries(field.when).every(([name, wanted]) => wanted.includes(String(values[name] ?? usual[name])));
}
