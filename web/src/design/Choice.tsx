/** A labelled choice from a short list, its label above it or `beside` it. */
export function Choice<T extends string>({
	label,
	value,
	options,
	set,
	beside = false,
}: {
	label: string;
	value: T;
	options: readonly (readonly [T, string])[];
	set: (value: T) => void;
	beside?: boolean;
}) {
	return (
		<label className={`text-[12px] ${beside ? "grid grid-cols-[84px_1fr] items-center gap-x-2" : "block"}`}>
			<span className={`text-ink-2 ${beside ? "" : "mb-0.5 block"}`}>{label}</span>
			<select
				aria-label={label}
				title={options.find(([name]) => name === value)?.[1]}
				className="w-full min-w-0 border border-line bg-card px-1 py-0.5"
				value={value}
				onChange={(event) => set(event.target.value as T)}
			>
				{options.map(([name, words]) => (
					<option key={name} value={name}>
						{words}
					</option>
				))}
			</select>
		</label>
	);
}
