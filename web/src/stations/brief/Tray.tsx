import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import { freePlace, newName } from "./freePlace";

const BUTTON_MM = { w: 11.1, h: 6.5 };

/** What can be put on the device. */
export function Tray({ select }: { select: (thing: string) => void }) {
	const { head, edit, say } = useDesign();
	const addButton = async () => {
		const name = newName(head.brief.controls.map((c) => c.name));
		const place = freePlace(head.outline_mm, head.things, BUTTON_MM.w, BUTTON_MM.h);
		if (!place)
			return say({
				kind: "refused",
				sentence: "There is no free place for another button.",
				wayOut: "Move something aside, or enlarge the outline.",
			});
		if (await edit({ kind: "add-button", name, x_mm: place.x, y_mm: place.y })) select(`button:${name}`);
	};
	const extra = (name: "screen" | "buzzer" | "light", present: boolean) => {
		const size = name === "screen" ? { w: 38, h: 12 } : { w: 3.5, h: 2.5 };
		const place = freePlace(head.outline_mm, head.things, size.w, size.h) ?? { x: 10, y: 10 };
		const y = name === "screen" ? place.y + 4.1 : place.y;
		void edit({ kind: "set-extra", extra: name, present, x_mm: place.x, y_mm: y });
	};
	return (
		<div className="flex flex-wrap items-center gap-2 border-b border-rule px-4 py-2">
			<span className="text-ink-2">Tray:</span>
			<Button onClick={() => void addButton()} data-testid="add-button">
				<svg width="16" height="16" aria-hidden="true">
					<rect x="2" y="2" width="12" height="12" rx="2" fill="none" stroke="currentColor" strokeWidth="1.5" />
					<circle cx="8" cy="8" r="3.2" fill="none" stroke="currentColor" strokeWidth="1.5" />
				</svg>
				Button
			</Button>
			{(["screen", "buzzer", "light"] as const).map((name) => {
				const there = head.brief[name] != null;
				return (
					<Button key={name} aria-pressed={there} onClick={() => extra(name, !there)}>
						{there ? `${name}: take off` : `${name}: add`}
					</Button>
				);
			})}
		</div>
	);
}
