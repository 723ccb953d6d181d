/** A labelled choice from a short list. */
export function Choice<T extends string>({
	label,
	value,
	options,
	set,
}: {
	label: string;
	value: T;
	options: readonly (readonly [T, string])[];
	set: (value: T) => void;
}) {
	return (
		<label className="block text-[12px]">
			<span className="mb-0.5 block text-ink-2">{label}</span>
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
