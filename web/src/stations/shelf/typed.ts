import type { Schemas } from "../../api/client";

export type Part = Schemas["Part"];
export type Terminal = Schemas["Terminal"];
export type Does = Terminal["does"];
export type ShelfRow = Schemas["ShelfRowView"];
export type Role = Schemas["RoleView"];
export type PinRow = Schemas["PinRow"];

export const OWN = "own/";
/** Under which the queries of the shelf are kept. */
export const SHELF = ["shelf"];
export const DOES: readonly [Does, string][] = [
	["supply", "takes supply"],
	["supply out", "gives supply"],
	["ground", "ground"],
	["input", "input"],
	["output", "output"],
	["open drain", "open drain"],
	["both ways", "both ways"],
	["analogue in", "analogue in"],
	["analogue out", "analogue out"],
	["contact", "contact"],
	["passive", "passive"],
	["coil", "coil"],
	["heat", "heat pad"],
	["nothing", "joined to nothing"],
	["end", "end that may be turned round"],
	["way", "numbered contact"],
];

/** A copy of a part under a name of one's own: "like this one, but". */
export function likeThis(part: Part, taken: readonly string[]): Part {
	const stem =
		part.id
			.replace(/^own[/:]/, "")
			.toLowerCase()
			.replace(/[^a-z0-9.-]+/g, "-")
			.slice(0, 40) || "part";
	let id = `${OWN}${stem}`;
	for (let n = 2; taken.includes(id); n++) id = `${OWN}${stem}-${n}`;
	return { ...structuredClone(part), id, evidence: "none", evidence_text: "" };
}

/** What a package begins with when its family is chosen: usual sizes, to be typed over from the drawing. */
export const BEGINNINGS: Record<Part["body"]["family"], Part["body"]> = {
	"two-ends": {
		family: "two-ends",
		prefix: "own",
		inch_code: "own",
		metric_code: "own",
		length_mm: [1.9, 2.1],
		width_mm: [1.15, 1.35],
		terminal_mm: [0.3, 0.6],
	},
	"gull-wings": {
		family: "gull-wings",
		prefix: "own",
		sides: 2,
		pins: 8,
		pitch_mm: 1.27,
		span_mm: [5.8, 6.2],
		foot_mm: [0.4, 1.0],
		lead_mm: [0.35, 0.5],
		body_mm: [3.9, 4.9],
		positions: [],
	},
	"no-leads": {
		family: "no-leads",
		prefix: "own",
		pins: 16,
		pitch_mm: 0.5,
		body_mm: [2.95, 3.05],
		terminal_mm: [0.3, 0.5],
		lead_mm: [0.2, 0.3],
		exposed_mm: 1.7,
	},
	rows: {
		family: "rows",
		name: "own",
		pins: 16,
		pitch_mm: 2.54,
		row_mm: 15.24,
		pad_mm: [2.0, 1.6],
		drill_mm: 0,
		body_mm: [18, 22],
	},
	drawn: {
		family: "drawn",
		name: "own",
		pads: [
			{
				number: "1",
				x_mm: -1.5,
				y_mm: 0,
				w_mm: 1.2,
				h_mm: 1.4,
				drill_mm: 0,
				round: false,
				paste: true,
				covered: false,
				bare_mm: 0,
			},
		],
		body_mm: [5, 3],
		body_middle_mm: [0, 0],
		pegs_mm: [],
		first_pin_mark: true,
		touched_mm: 0,
	},
};
/** A part of a kind of which nothing is known yet: a package with leads on two sides to begin with. */
export function blank(role: Role, taken: readonly string[], reference = "U"): Part {
	const part: Part = {
		id: `new-${role.name}`,
		kind: role.name,
		description: "",
		body: BEGINNINGS["gull-wings"],
		height_mm: 1.75,
		price_cents: 0,
		reference,
		evidence: "none",
		evidence_text: "",
		terminals: {},
		values: {},
		hand_fitted: false,
		sold_as: [],
		contact: "",
		trial: "",
		with_it: [],
		around: [],
	};
	return likeThis(part, taken);
}

/** Pads as they are typed: `1, 4 5` gives three. */
export function padsIn(text: string): string[] {
	return text.split(/[\s,;]+/).filter(Boolean);
}

/** The rows of a drawn pattern as text, a pad a line: number, x, y, width, height, and the drill of a hole. */
export function padLines(pads: Schemas["DrawnPad"][]): string {
	return pads
		.map((pad) =>
			[pad.number, pad.x_mm, pad.y_mm, pad.w_mm, pad.h_mm, ...(pad.drill_mm ? [pad.drill_mm] : [])].join("  "),
		)
		.join("\n");
}

/** Pads of such text, keeping what the old pads of the same place in the row say beside; rows that cannot be read by number. */
export function padsOf(text: string, before: Schemas["DrawnPad"][]): { pads: Schemas["DrawnPad"][]; bad: number[] } {
	const pads: Schemas["DrawnPad"][] = [];
	const bad: number[] = [];
	text.split("\n").forEach((line, index) => {
		const cells = line.trim().split(/[\s,;]+/);
		if (cells.length === 1 && !cells[0]) return;
		const [number = "", ...sizes] = cells;
		const [x, y, w, h, drill = 0] = sizes.map(Number);
		if (sizes.length < 4 || [x, y, w, h, drill].some((n) => n === undefined || !Number.isFinite(n))) {
			bad.push(index + 1);
			return;
		}
		const old = before[pads.length];
		pads.push({
			number,
			x_mm: x as number,
			y_mm: y as number,
			w_mm: w as number,
			h_mm: h as number,
			drill_mm: drill,
			round: old?.round ?? false,
			paste: old?.paste ?? true,
			covered: old?.covered ?? false,
			bare_mm: old?.bare_mm ?? 0,
		});
	});
	return { pads, bad };
}

/** Terminals in place of those that were pasted from a pin table; what a terminal said before stays. */
export function withPins(part: Part, rows: readonly PinRow[]): Part {
	const terminals = Object.fromEntries(
		rows.map((row) => {
			const before = part.terminals[row.name];
			return [
				row.name,
				{
					pads: row.pads,
					does: row.does,
					joined: before?.joined ?? false,
					open: before?.open ?? (row.does === "nothing" ? "joined to nothing inside" : ""),
				},
			];
		}),
	);
	return { ...part, terminals };
}

/** Terminals with a numbered contact for each pad that has none. */
export function withEach(part: Part, pads: readonly string[]): Part["terminals"] {
	const fresh = pads.map((pad): [string, Terminal] => [
		`way ${pad}`,
		{ pads: [pad], does: "way", joined: false, open: "" },
	]);
	return { ...part.terminals, ...Object.fromEntries(fresh) };
}

/** What a person would call a dimension of a body: `pitch`, `over the leads, least`. */
export function dimensionWords(field: string): string {
	const words: Record<string, string> = {
		pitch_mm: "pitch",
		span_mm: "over the leads",
		foot_mm: "foot",
		lead_mm: "width of a lead",
		body_mm: "body",
		length_mm: "length",
		width_mm: "width",
		terminal_mm: "terminal",
		exposed_mm: "exposed pad",
		row_mm: "between the rows",
		pad_mm: "pad",
		drill_mm: "hole",
		pins: "pins",
		sides: "sides with leads",
		body_middle_mm: "middle of the body",
		touched_mm: "touched field",
	};
	return words[field] ?? field;
}
