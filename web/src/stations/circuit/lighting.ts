/** Lights every stroke and word of a net or a part below an element, and nothing else, without React drawing anything. */
export function light(root: HTMLElement, name: string | null, attribute: "net" | "part", look: string) {
	for (const old of root.querySelectorAll(`.${look}`)) old.classList.remove(look);
	if (!name) return;
	for (const found of root.querySelectorAll(`[data-${attribute}="${CSS.escape(name)}"]`)) found.classList.add(look);
}
