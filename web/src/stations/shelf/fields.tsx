import type { ReactNode } from "react";
import { Amount } from "./Amount";

/** A line of a form on the shelf: its words, then what is typed. */
export function Line({ words, children }: { words: string; children: ReactNode }) {
	return (
		<div className="grid grid-cols-[172px_1fr] items-center gap-x-2 py-0.5 text-[12px]">
			<span className="text-ink-2">{words}</span>
			<span className="flex flex-wrap items-center gap-1.5">{children}</span>
		</div>
	);
}

/** Words that are typed. */
export function Words({
	label,
	value,
	set,
	hint = "",
	wide = "w-full",
}: {
	label: string;
	value: string;
	set: (text: string) => void;
	hint?: string;
	wide?: string;
}) {
	return (
		<input
			aria-label={label}
			placeholder={hint}
			className={`border border-line bg-card px-1.5 py-0.5 ${wide}`}
			value={value}
			onChange={(event) => set(event.target.value)}
		/>
	);
}

/** A list that is typed with commas; it is read when the field is left. */
export function Listed({
	label,
	value,
	set,
}: {
	label: string;
	value: readonly (string | number)[];
	set: (text: string) => void;
}) {
	const shown = value.join(", ");
	return (
		<input
			key={shown}
			aria-label={label}
			className="w-full border border-line bg-card px-1.5 py-0.5"
			defaultValue={shown}
			onBlur={(event) => event.target.value !== shown && set(event.target.value)}
			onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
		/>
	);
}

/** A number that must be there; an empty field is nothing. */
export function Figure({
	label,
	value,
	unit,
	set,
}: {
	label: string;
	value: number;
	unit: string;
	set: (value: number) => void;
}) {
	return <Amount label={label} value={value} unit={unit} set={(n) => set(n ?? 0)} />;
}

/** A share, typed in percent. */
export function Percent({ label, value, set }: { label: string; value: number; set: (value: number) => void }) {
	const shown = Math.round(value * 1e6) / 1e4;
	return <Figure label={label} value={shown} unit="%" set={(n) => set(Math.round(n * 1e4) / 1e6)} />;
}

export function Heading({ children }: { children: ReactNode }) {
	return <h3 className="mt-4 border-b border-ink pb-1 text-[14px] font-semibold first:mt-0">{children}</h3>;
}
