/** A number that is sent when the field is left or Enter is pressed. */
export function Count({ words, value, set }: { words: string; value: number; set: (value: number) => void }) {
	return (
		<label className="flex items-center gap-1 whitespace-nowrap">
			<input
				key={value}
				className="figure w-[44px] border border-[#b9b09c] bg-card px-1 text-right"
				inputMode="numeric"
				aria-label={words}
				defaultValue={value}
				onBlur={(event) => {
					const typed = event.target.value.trim();
					const next = typed === "" ? value : Number(typed);
					event.target.value = String(value); // a refused number goes; an accepted one comes back with the brief
					if (Number.isFinite(next) && next !== value) set(next);
				}}
				onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
			/>
			<span className="text-ink-2">{words}</span>
		</label>
	);
}
