import { useState } from "react";

/** A number that is typed on the bench; nothing typed is nothing known. */
export function Amount({
	label,
	value,
	unit,
	set,
}: {
	label: string;
	value: number | null | undefined;
	unit: string;
	set: (value: number | null) => void;
}) {
	const [text, setText] = useState(value == null ? "" : String(value));
	const typed = text.trim() === "" ? null : Number(text.replace(",", "."));
	const bad = typed !== null && !Number.isFinite(typed);
	return (
		<span className="flex items-center gap-1.5">
			<input
				aria-label={label}
				aria-invalid={bad}
				inputMode="decimal"
				placeholder="not known"
				className={`figure w-[84px] border bg-card px-1 py-0.5 text-right ${bad ? "border-stop" : "border-line"}`}
				value={text}
				onChange={(event) => {
					setText(event.target.value);
					const now = event.target.value.trim().replace(",", ".");
					const number = now === "" ? null : Number(now);
					if (number === null || Number.isFinite(number)) set(number);
				}}
			/>
			<span className="text-ink-2">{bad ? "is no number" : unit}</span>
		</span>
	);
}
