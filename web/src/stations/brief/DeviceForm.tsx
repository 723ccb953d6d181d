import type { Edit, Schemas } from "../../api/client";
import { useDesign } from "../../document/useDesign";
import { Choice } from "./Choice";
import { Count } from "./Count";

type Brief = Schemas["DesignHead"]["brief"];
const ROLES = [
	["stand-alone", "works by itself"],
	["usb-controller", "USB controller"],
	["usb-keyboard", "USB keyboard"],
	["host-key-reader", "keys on a host's pins"],
] as const;
const CHORDS = [
	["two thumbs", "any two thumbs, all fingers"],
	["whole pad", "two keys a thumb, all fingers"],
	["typing", "typing, up to six keys"],
	["own", "groups of its own"],
] as const;
const POWERS = [
	["two-aaa-cells", "two AAA cells"],
	["lithium-cell", "one lithium cell"],
	["coin-cell", "a coin cell"],
	["nine-volt", "a nine-volt block"],
	["from-host", "the host's cable"],
] as const;

/** What the device is, which keys are held together, what feeds it. */
export function DeviceForm() {
	const { head, edit } = useDesign();
	const brief: Brief = head.brief;
	return (
		<div className="flex flex-col gap-1.5 border-t border-rule pt-3" data-testid="device-form">
			<h2 className="font-semibold">Device</h2>
			<Choice
				label="role"
				value={brief.role ?? "stand-alone"}
				options={ROLES}
				set={(role) => void edit({ kind: "set-role", role })}
			/>
			<Choice
				label="chords"
				value={brief.chords?.rule ?? "two thumbs"}
				options={CHORDS}
				set={(rule) =>
					void edit({ kind: "set-chords", chords: { rule, at_once: 6, groups: brief.chords?.groups ?? [] } })
				}
			/>
			{brief.chords?.rule === "own" && <Groups />}
			<Choice
				label="fed by"
				value={brief.power.kind ?? "two-aaa-cells"}
				options={POWERS}
				set={(kind) => {
					const power = { kind, x_mm: brief.power.x_mm, y_mm: brief.power.y_mm, turn_deg: brief.power.turn_deg ?? 0 };
					void edit({ kind: "set-power", power } as Extract<Edit, { kind: "set-power" }>);
				}}
			/>
			<Choice
				label="keys pull"
				value={brief.button_reading ?? "internal-pull-up"}
				options={[
					["internal-pull-up", "to ground, pull-up in the chip"],
					["pull-down-resistors", "to the rail, resistors on board"],
				]}
				set={(reading) => void edit({ kind: "set-reading", reading })}
			/>
			<Size />
			<Choice
				label="shell"
				value={brief.shell?.kind ?? "own"}
				options={[
					["own", "one's own"],
					["existing", "existing, outline kept"],
				]}
				set={(kind) => void edit({ kind: "set-shell", shell: { kind, name: brief.shell?.name ?? "" } })}
			/>
		</div>
	);
}

/** The groups of keys that are held together, each with a way to drop it. */
function Groups() {
	const { head, edit } = useDesign();
	const groups = head.brief.chords?.groups ?? [];
	const title = (id: string) => (head.keys.find((k) => k.id === id)?.title ?? id).replace("button ", "");
	const drop = (index: number) =>
		void edit({
			kind: "set-chords",
			chords: { rule: "own", at_once: 6, groups: groups.filter((_, place) => place !== index) },
		});
	if (groups.length === 0)
		return <p className="text-[12px] text-ink-2">Pick keys with Shift, then press "Held together".</p>;
	return (
		<ul className="text-[12px]">
			{groups.map((group, index) => (
				<li key={group.join()} className="flex items-start gap-1">
					<span className="min-w-0 flex-1">{group.map(title).join(" + ")}</span>
					<button
						type="button"
						className="text-patina hover:underline"
						aria-label={`Drop ${group.map(title).join(" and ")}`}
						onClick={() => drop(index)}
					>
						drop
					</button>
				</li>
			))}
		</ul>
	);
}

/** Width, height and corner of a rounded rectangle; an existing shell refuses a change in words. */
function Size() {
	const { head, edit } = useDesign();
	const outline = head.brief.outline;
	if (outline.kind === "polygon")
		return <p className="text-[12px] text-ink-2">An outline of its own, from the brief.</p>;
	const change = (size: Partial<typeof outline>) =>
		void edit({ kind: "set-outline", outline: { ...outline, ...size } });
	return (
		<div className="flex flex-wrap items-center gap-x-2 gap-y-1 text-[12px]">
			<span className="w-[56px] text-ink-2">outline</span>
			<Count words="mm wide" value={outline.width_mm} set={(width_mm) => change({ width_mm })} />
			<span className="w-[56px]" />
			<Count words="mm high" value={outline.height_mm} set={(height_mm) => change({ height_mm })} />
			<span className="w-[56px]" />
			<Count words="mm corner" value={outline.corner_mm ?? 3} set={(corner_mm) => change({ corner_mm })} />
		</div>
	);
}
