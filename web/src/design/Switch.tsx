import { walk } from "./arrows";

/** A row of views of which one is shown: each with its value, its name and what it shows. */
export function Switch<T extends string>({
	label,
	mark,
	views,
	shown,
	show,
}: {
	label: string;
	mark: string;
	views: readonly (readonly [T, string, string])[];
	shown: T;
	show: (view: T) => void;
}) {
	return (
		<div role="radiogroup" aria-label={label} className="flex border border-line" onKeyDown={walk}>
			{views.map(([value, title, about]) => (
				<button
					key={value}
					type="button"
					role="radio"
					aria-checked={shown === value}
					title={about}
					data-testid={`${mark}-${value}`}
					className={`px-2.5 py-1 whitespace-nowrap ${shown === value ? "bg-ink text-paper" : "bg-card"}`}
					onClick={() => show(value)}
				>
					{title}
				</button>
			))}
		</div>
	);
}
