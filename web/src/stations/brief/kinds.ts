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

/** Whether a field means something with the values that other fields have now. */
export function means(
	field: Field,
	values: Readonly<Record<string, unknown>>,
	usual: Readonly<Record<string, unknown>>,
): boolean {
	return Object.entries(field.when).every(([name, wanted]) => wanted.includes(String(values[name] ?? usual[name])));
}
