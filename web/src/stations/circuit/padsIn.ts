/** Pads with their nets as they were typed; null where that cannot be read. */
export function padsIn(text: string): Record<string, string> | null {
	const found: Record<string, string> = {};
	for (const pair of text.split(",")) {
		const read = /^\s*([A-Za-z0-9]{1,4})\s+([A-Za-z][A-Za-z0-9_]{0,39})\s*$/.exec(pair);
		if (!read?.[1] || !read[2]) return null;
		found[read[1].toUpperCase()] = read[2].toUpperCase();
	}
	return found;
}
