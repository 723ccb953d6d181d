import type { KeyboardEvent } from "react";

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 };

/** Arrow keys among tabs or radios: the next one gets the focus and is pressed. */
export function walk(event: KeyboardEvent<HTMLElement>) {
	const step = STEPS[event.key];
	const rows = [...event.currentTarget.querySelectorAll<HTMLElement>("[role='tab'], [role='radio']")];
	const now = rows.indexOf(document.activeElement as HTMLElement);
	if (!step || now < 0) return;
	event.preventDefault();
	const next = rows[(now + step + rows.length) % rows.length];
	next?.focus();
	next?.click();
}
