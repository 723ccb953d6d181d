/** One of a few names, shown as pressed; nothing where there is no choice. `mark` names the data attribute that each button carries. */
export function Picker({
	names,
	shown,
	mark,
	show,
}: {
	names: string[];
	shown: string;
	mark: "board" | "brain";
	show: (name: string) => void;
}) {
	if (names.length < 2) return null;
	return names.map((name) => (
		<button
			key={name}
			type="button"
			aria-pressed={name === shown}
			{...{ [`data-${mark}`]: name }}
			className={`rounded-[3px] border px-2 py-0.5 ${name === shown ? "border-copper bg-card font-semibold" : "border-transparent text-ink-2 hover:border-rule"}`}
			onClick={() => show(name)}
		>
			{name}
		</button>
	));
}
