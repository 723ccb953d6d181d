/** Where a terminal of a part may go, beside nets of one's own. */
export const PLACES = ["supply", "ground", "open", "line", "to chip", "from chip", "clock", "data"] as const;

/** Rows of `terminal = where` as they are kept. */
export function joinsIn(text: string): Map<string, string> {
	const rows = text.split(/[;\n]/).map((row) => row.trim());
	return new Map(
		rows.flatMap((row) => {
			const at = row.lastIndexOf("=");
			return at > 0 ? [[row.slice(0, at).trim(), row.slice(at + 1).trim()] as const] : [];
		}),
	);
}

export function joinsText(joins: ReadonlyMap<string, string>): string {
	return [...joins].map(([terminal, where]) => `${terminal} = ${where}`).join("; ");
}

/** A net's name as it is typed: capitals, digits, low lines behind an @. */
export function netName(text: string): string {
	const name = text
		.toUpperCase()
		.replace(/[^A-Z0-9]+/g, "_")
		.replace(/^[^A-Z]+/, "")
		.slice(0, 24);
	return name ? `@${name}` : "";
}
