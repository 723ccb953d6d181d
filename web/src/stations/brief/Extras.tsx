import { useQuery } from "@tanstack/react-query";
import { client, type Edit, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";
import { Count } from "./Count";
import { freePlace } from "./freePlace";

const EXTRAS = [
	["screen", "screen"],
	["buzzer", "buzzer"],
	["light", "indicator"],
	["speaker", "speaker"],
	["headphones", "headphones"],
	["light_chain", "light chain"],
	["light_matrix", "light matrix"],
] as const;
const LINKS = [
	["usb-device", "usb"],
	["memory-card", "card"],
	["serial-port", "serial port"],
	["spare-port", "spare port"],
	["expansion", "expansion"],
	["board-link", "other half"],
] as const;

/** Screens, sound, lights, links: a press puts one on or takes it off. */
export function Extras() {
	const { head, edit } = useDesign();
	const tray = useQuery({ queryKey: ["tray"], queryFn: () => take(client.GET("/api/tray")), staleTime: Infinity });
	const extra = (name: (typeof EXTRAS)[number][0], present: boolean) => {
		const size = name === "screen" ? { w: 38, h: 12 } : { w: 3.5, h: 2.5 };
		const place = freePlace(head.outline_mm, head.things, size.w, size.h) ?? { x: 10, y: 10 };
		const y = name === "screen" ? place.y + 4.1 : place.y;
		void edit({ kind: "set-extra", extra: name, present, x_mm: place.x, y_mm: y });
	};
	const links = head.brief.links ?? [];
	return (
		<div className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px]">
			<span className="text-ink-2">with</span>
			{EXTRAS.map(([name, words]) => (
				<Check key={name} words={words} on={head.brief[name] != null} set={(on) => extra(name, on)} />
			))}
			{LINKS.map(([kind, name]) => {
				const there = links.find((l) => l.kind === kind);
				const link = { kind, name } as Extract<Edit, { kind: "add-link" }>["link"];
				return (
					<Check
						key={kind}
						words={name === "usb" ? "USB" : name}
						on={there !== undefined}
						set={(on) =>
							void edit(on ? { kind: "add-link", link } : { kind: "remove-link", name: there?.name ?? name })
						}
					/>
				);
			})}
			<Check
				words="motion sensor"
				on={(head.brief.sensors ?? []).length > 0}
				set={(on) =>
					void edit({
						kind: "set-sensors",
						sensors: on ? [{ name: "motion", reading: "two-wire", address: 0x68, interrupt: true, bus_pf: 10 }] : [],
					})
				}
			/>
			<Check
				words="crystal"
				on={head.brief.crystal ?? false}
				set={(on) => void edit({ kind: "set-clocks", crystal: on, clock_crystal: head.brief.clock_crystal ?? false })}
			/>
			<Check
				words="clock crystal"
				on={head.brief.clock_crystal ?? false}
				set={(on) => void edit({ kind: "set-clocks", crystal: head.brief.crystal ?? false, clock_crystal: on })}
			/>
			{head.brief.light_chain && (
				<Count
					words="lights in the chain"
					value={head.brief.light_chain.count}
					set={(count) => void edit({ kind: "set-lights", count })}
				/>
			)}
			{head.brief.light_matrix && (
				<>
					<Count
						words="light rows"
						value={head.brief.light_matrix.rows}
						set={(rows) => void edit({ kind: "set-lights", rows })}
					/>
					<Count
						words="light columns"
						value={head.brief.light_matrix.columns}
						set={(columns) => void edit({ kind: "set-lights", columns })}
					/>
				</>
			)}
			{head.brief.screen?.bus === "parallel colour" && (
				<label className="flex items-center gap-1">
					<select
						aria-label="Colour bits"
						className="border border-[#b9b09c] bg-card px-1 py-0.5"
						value={head.brief.screen.colour_bits}
						onChange={(event) => void edit({ kind: "set-screen-bits", bits: Number(event.target.value) })}
					>
						{[3, 6, 9, 12, 15, 16, 18].map((bits) => (
							<option key={bits}>{bits}</option>
						))}
					</select>
					<span className="text-ink-2">colour bits</span>
				</label>
			)}
			{head.brief.screen?.bus === "one-way serial" && (
				<Count
					words="MHz to the screen"
					value={head.brief.screen.serial_mhz ?? 8}
					set={(serial_mhz) => void edit({ kind: "set-screen-wish", serial_mhz })}
				/>
			)}
			{head.brief.screen && (
				<>
					<span className="whitespace-nowrap inline-flex gap-x-3">
						<Count
							words="rows of"
							value={head.brief.screen.wanted_rows ?? 0}
							set={(wanted_rows) => void edit({ kind: "set-screen-wish", wanted_rows })}
						/>
						<Count
							words="letters wanted,"
							value={head.brief.screen.wanted_columns ?? 0}
							set={(wanted_columns) => void edit({ kind: "set-screen-wish", wanted_columns })}
						/>
					</span>
					<Count
						words="frames a second"
						value={head.brief.screen.wanted_rate_hz ?? 0}
						set={(wanted_rate_hz) => void edit({ kind: "set-screen-wish", wanted_rate_hz })}
					/>
				</>
			)}
			{head.brief.screen && (
				<label className="flex items-center gap-1">
					<span className="text-ink-2">screen is</span>
					<select
						aria-label="Screen part"
						className="max-w-[210px] border border-[#b9b09c] bg-card px-1 py-0.5"
						value={head.brief.screen.part}
						onChange={(event) => {
							const chosen = tray.data?.screens.find((s) => s.id === event.target.value);
							if (chosen) void edit({ kind: "set-screen", part: chosen.id, bus: chosen.bus });
						}}
					>
						{(tray.data?.screens ?? []).map((screen) => (
							<option key={screen.id} value={screen.id}>
								{screen.description.replace("Screen module ", "")}
							</option>
						))}
					</select>
				</label>
			)}
		</div>
	);
}

function Check({ words, on, set }: { words: string; on: boolean; set: (on: boolean) => void }) {
	return (
		<label className="flex items-center gap-1 whitespace-nowrap">
			<input
				type="checkbox"
				className="accent-patina"
				checked={on}
				onChange={(event) => set(event.target.checked)}
				data-extra={words}
			/>
			{words}
		</label>
	);
}
