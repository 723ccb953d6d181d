import { Choice } from "../../design/Choice";
import { NumberField } from "../../design/NumberField";
import { useDesign } from "../../document/useDesign";
import { MakingFields } from "./MakingFields";

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

/** What the device is as a whole: its role, which keys are held together, how many by when. */
export function DeviceForm({ board }: { board: string }) {
	const { head, edit } = useDesign();
	const brief = head.brief;
	return (
		<div className="flex flex-col gap-1.5 border-t border-rule pt-3" data-testid="device-form">
			<h2 className="font-semibold">Device</h2>
			<Choice
				label="Role"
				value={brief.role ?? "stand-alone"}
				options={ROLES}
				set={(role) => void edit({ kind: "set-role", role })}
			/>
			<Choice
				label="Chords"
				value={brief.chords?.rule ?? "two thumbs"}
				options={CHORDS}
				set={(rule) =>
					void edit({ kind: "set-chords", chords: { rule, at_once: 6, groups: brief.chords?.groups ?? [] } })
				}
			/>
			{brief.chords?.rule === "own" && <Groups />}
			<Choice
				label="Keys pull"
				value={brief.button_reading ?? "internal-pull-up"}
				options={[
					["internal-pull-up", "to ground, pull-up in the chip"],
					["pull-down-resistors", "to the rail, resistors on board"],
				]}
				set={(reading) => void edit({ kind: "set-reading", reading })}
			/>
			<Size board={board} />
			<Room board={board} />
			<Choice
				label="Shell"
				value={brief.shell?.kind ?? "own"}
				options={[
					["own", "one's own"],
					["existing", "existing, outline kept"],
				]}
				set={(kind) => void edit({ kind: "set-shell", shell: { kind, name: brief.shell?.name ?? "" } })}
			/>
			<NumberField
				label="To make"
				unit=""
				value={brief.quantity}
				set={(quantity) => quantity != null && void edit({ kind: "set-quantity", quantity })}
			/>
			<Wanted />
			<Purpose />
			<MakingFields />
		</div>
	);
}

/** The day by which the devices are wanted: the calendar counts back from it. */
function Wanted() {
	const { head, edit } = useDesign();
	const day = head.brief.wanted_by;
	return (
		<label className="grid grid-cols-[84px_1fr] items-center gap-x-2 text-[12px]">
			<span className="text-ink-2">Wanted by</span>
			<input
				key={day}
				type="date"
				aria-label="Wanted by"
				required
				className="figure min-w-0 border border-line bg-card px-1 py-0.5"
				defaultValue={day}
				onBlur={(event) => {
					const wanted_by = event.target.value;
					if (!wanted_by) event.target.value = day;
					else if (wanted_by !== day) void edit({ kind: "set-quantity", quantity: head.brief.quantity, wanted_by });
				}}
				onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
			/>
		</label>
	);
}

/** What the device is for, in a line; it stands on the shelf and in the package. */
function Purpose() {
	const { head, edit } = useDesign();
	const purpose = head.brief.purpose;
	return (
		<label className="grid grid-cols-[84px_1fr] items-center gap-x-2 text-[12px]">
			<span className="text-ink-2">For</span>
			<input
				key={purpose}
				aria-label="Purpose"
				maxLength={200}
				className="min-w-0 border border-line bg-card px-1 py-0.5"
				defaultValue={purpose}
				onBlur={(event) => {
					const words = event.target.value.trim();
					if (words !== purpose) void edit({ kind: "set-words", purpose: words });
				}}
				onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
			/>
		</label>
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
						className="min-h-6 px-1 text-patina hover:underline"
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

/** Width, height and corner of a board that is a rounded rectangle; an existing shell refuses a change in words. */
function Size({ board }: { board: string }) {
	const { head, edit } = useDesign();
	const outline = head.brief.boards.find((b) => (b.name ?? "main") === board)?.outline;
	if (!outline || outline.kind === "polygon")
		return <p className="text-[12px] text-ink-2">An outline of its own: shape it above the board.</p>;
	const change = (size: Partial<typeof outline>) =>
		void edit({ kind: "set-outline", board, outline: { ...outline, ...size } });
	return (
		<>
			<NumberField label="Wide" unit="mm" value={outline.width_mm} set={(v) => v != null && change({ width_mm: v })} />
			<NumberField
				label="High"
				unit="mm"
				value={outline.height_mm}
				set={(v) => v != null && change({ height_mm: v })}
			/>
			<NumberField
				label="Corners"
				unit="mm"
				value={outline.corner_mm ?? 3}
				set={(v) => v != null && change({ corner_mm: v })}
			/>
		</>
	);
}

/** The room above both sides of a board, where somebody has measured it; parts that are higher are a stop. */
function Room({ board }: { board: string }) {
	const { head, edit } = useDesign();
	const found = head.brief.boards.find((b) => (b.name ?? "main") === board);
	if (!found) return null;
	const { near_room_mm = null, far_room_mm = null } = found;
	const { copper_layers = 2, both_sides = false } = found;
	const build = (change: { copper_layers?: 2 | 4; both_sides?: boolean }) =>
		void edit({ kind: "set-build", board, copper_layers, both_sides, ...change });
	const set = (room: { near_room_mm?: number | null; far_room_mm?: number | null }) =>
		void edit({ kind: "set-room", board, near_room_mm, far_room_mm, ...room });
	return (
		<>
			<label className="flex items-center gap-2 text-[12px]">
				<span className="flex-1 text-ink-2">Copper layers</span>
				<select
					className="min-h-6 border border-line bg-card px-1"
					value={copper_layers}
					onChange={(event) => build({ copper_layers: Number(event.target.value) === 4 ? 4 : 2 })}
					data-testid="copper-layers"
				>
					<option value={2}>two</option>
					<option value={4}>four, with planes</option>
				</select>
			</label>
			<label className="flex items-center gap-2 text-[12px]">
				<span className="flex-1 text-ink-2">Small parts</span>
				<select
					className="min-h-6 border border-line bg-card px-1"
					value={both_sides ? "both" : "front"}
					onChange={(event) => build({ both_sides: event.target.value === "both" })}
					data-testid="both-sides"
				>
					<option value="front">on the front</option>
					<option value="both">behind, if full</option>
				</select>
			</label>
			<NumberField label="Room near" unit="mm" empty value={near_room_mm} set={(v) => set({ near_room_mm: v })} />
			<NumberField label="Room far" unit="mm" empty value={far_room_mm} set={(v) => set({ far_room_mm: v })} />
		</>
	);
}
