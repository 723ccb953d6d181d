import { useEffect, useRef, useState } from "react";
import { useRefused } from "../document/useDesign";
import { typedNumber } from "./typedNumber";

/** A number that is sent when the field is left or Enter is pressed; what is no number is said, not dropped. */
export function NumberField({
	label,
	value,
	unit,
	empty = false,
	set,
}: {
	label: string;
	value: number | null;
	unit: string;
	empty?: boolean;
	set: (value: number | null) => void;
}) {
	const [problem, setProblem] = useState("");
	const shown = value == null ? "" : String(value);
	// What was sent and then refused goes back to what stands; that it did is said beside the field.
	const sent = useRef<{ field: HTMLInputElement; text: string } | null>(null);
	const refused = useRefused();
	useEffect(() => {
		if (!refused || !sent.current) return;
		const { field, text } = sent.current;
		sent.current = null;
		if (text === shown) return;
		field.value = shown;
		setProblem(`${text} is not taken; it is ${shown || "empty"} as before.`);
	}, [refused, shown]);
	const leave = (field: HTMLInputElement) => {
		const text = field.value.trim();
		if (text === shown) return setProblem("");
		if (text === "" && empty) return set(null);
		const typed = typedNumber(text, unit);
		if (typed == null) return setProblem(`Type a number${unit ? ` in ${unit}` : ""}.`);
		setProblem("");
		if (typed === value) return;
		sent.current = { field, text };
		set(typed);
	};
	return (
		<label className="grid grid-cols-[84px_1fr] items-center gap-x-2 text-[12px]">
			<span className="text-ink-2">{label}</span>
			<span className="flex items-center gap-1">
				<input
					key={shown}
					aria-label={label}
					aria-invalid={problem !== ""}
					inputMode="decimal"
					defaultValue={shown}
					className={`figure w-[76px] border bg-card px-1 py-0.5 text-right ${problem ? "border-stop" : "border-line"}`}
					onBlur={(event) => leave(event.target)}
					onKeyDown={(event) => event.key === "Enter" && leave(event.currentTarget)}
				/>
				<span className="text-ink-2">{unit}</span>
			</span>
			{problem && <span className="col-start-2 text-stop">{problem}</span>}
		</label>
	);
}
