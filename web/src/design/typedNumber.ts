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
