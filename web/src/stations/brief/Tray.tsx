import type { PointerEvent } from "react";
import { walk } from "../../design/arrows";
import { Button } from "../../design/Button";
import { useKept } from "../../document/useKept";
import { GROUPS, type Kind } from "./kinds";
import { Mark } from "./Mark";
import { useKinds } from "./useKinds";

/** What can be put on the device, by groups: press for a free place, or drag onto the drawing. */
export function Tray({ add, carry }: { add: (kind: Kind) => void; carry: (kind: Kind, event: PointerEvent) => void }) {
	const kinds = useKinds();
	const [group, setGroup] = useKept<string>("tray", "controls");
	return (
		<div className="border-b border-rule px-3 pt-1.5 pb-1.5">
			<div role="tablist" aria-label="Groups of things" className="flex flex-wrap gap-1" onKeyDown={walk}>
				{GROUPS.map(([name, words]) => (
					<button
						key={name}
						type="button"
						role="tab"
						aria-selected={group === name}
						data-group={name}
						className={`border-b-2 px-2 py-0.5 text-[12px] ${group === name ? "border-copper font-semibold" : "border-transparent text-ink-2 hover:border-rule"}`}
						onClick={() => setGroup(name)}
					>
						{words}
					</button>
				))}
			</div>
			<div className="mt-1.5 flex min-h-[60px] flex-wrap content-start gap-1" role="tabpanel" aria-label={group}>
				{kinds
					.filter((kind) => kind.group === group)
					.map((kind) => (
						<Button
							key={kind.kind}
							title={`${kind.about} Press for a free place, or drag it onto the device.`}
							data-testid={`add-${kind.kind}`}
							className="touch-none !px-1.5 !py-0.5 text-[12px]"
							onPointerDown={(event) => carry(kind, event)}
							onClick={() => add(kind)}
						>
							<Mark name={kind.mark} />
							{kind.title}
						</Button>
					))}
			</div>
		</div>
	);
}
