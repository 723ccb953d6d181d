import type { Schemas } from "../../api/client";

export type Control = Schemas["DesignHead"]["brief"]["controls"][number];
export type ControlKind = NonNullable<Control["kind"]>;
export type Size = { w: number; h: number };

/** What the tray offers: the words, the room that a new one needs (mm), and how it starts. */
export const KINDS: { kind: ControlKind; title: string; about: string; room: Size }[] = [
	{ kind: "button", title: "Button", about: "opens or closes", room: { w: 11.1, h: 6.5 } },
	{ kind: "pad", title: "Pad", about: "four directions", room: { w: 29.2, h: 24.5 } },
	{ kind: "stick", title: "Stick", about: "two axes, with a press", room: { w: 19, h: 19.5 } },
	{ kind: "trigger", title: "Trigger", about: "analogue pull", room: { w: 4.2, h: 3.6 } },
	{ kind: "encoder", title: "Encoder", about: "turns without end", room: { w: 13, h: 16.5 } },
	{ kind: "slider", title: "Slider", about: "a level that stays", room: { w: 35.5, h: 8 } },
	{ kind: "touch", title: "Touch", about: "an electrode", room: { w: 10.5, h: 10.5 } },
];

/** A new control of a kind at a place, with its defaults. */
export function newControl(kind: ControlKind, name: string, x: number, y: number): Control {
	const base = { name, x_mm: x, y_mm: y, turn_deg: 0 as const, digit: "auto" as const };
	switch (kind) {
		case "button":
			return { ...base, kind, part: "button-6x6-surface", duty: "play" };
		case "pad":
			return { ...base, kind, form: "four buttons", part: "button-6x6-surface", spread_mm: 9 };
		case "stick":
			return { ...base, kind, sensing: "resistive", press: true, supply: "rail", part: "stick-resistive-13" };
		case "trigger":
			return { ...base, kind, sensing: "magnetic", supply: "rail", part: "trigger-magnetic" };
		case "encoder":
			return { ...base, kind, press: true, part: "encoder-11" };
		case "slider":
			return { ...base, kind, part: "slider-20" };
		case "touch":
			return { ...base, kind, part: "touch-electrode-10" };
	}
}

/** The role of a control, as findings, drawing and edits name it. */
export const roleOf = (control: { kind?: string; name: string }): string =>
	`${control.kind ?? "button"}:${control.name}`;

/** The kind of catalogue part that a control takes. */
export function partKind(control: Control): string {
	const kind = control.kind ?? "button";
	if (kind === "encoder" || kind === "slider") return kind;
	switch (control.kind) {
		case "pad":
			return control.form === "five-way part" ? "five-way" : "button";
		case "stick":
		case "trigger":
			return `${control.sensing ?? "magnetic"} ${control.kind}`;
		case "touch":
			return "touch electrode";
		default:
			return "button";
	}
}

/** A free name for a new control: `key 7`, `stick 2`. */
export function freeName(kind: ControlKind, taken: string[]): string {
	const word = kind === "button" ? "key" : kind;
	const same = taken.filter((name) => name.startsWith(word)).length;
	for (let number = kind === "button" ? taken.length + 1 : same + 1; ; number++) {
		const name = `${word} ${number}`;
		if (!taken.includes(name)) return name;
	}
}
