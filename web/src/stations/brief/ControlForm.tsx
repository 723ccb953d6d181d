import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { client, take } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";
import { Choice } from "./Choice";
import { type Control, partKind, roleOf } from "./controlKinds";
import { USAGES } from "./keyUsages";

const DIGITS = [
	["auto", "by its side"],
	["left thumb", "left thumb"],
	["right thumb", "right thumb"],
	["left finger", "left finger"],
	["right finger", "right finger"],
] as const;
const DUTIES = [
	["play", "in use"],
	["menu", "menu"],
	["hot key", "hot key"],
	["power", "power, wakes the chip"],
] as const;
const TURNS = [
	["0", "0°"],
	["90", "90°"],
	["180", "180°"],
	["270", "270°"],
] as const;

/** Everything about the picked control: name, part, form, who works it. */
export function ControlForm({ control, select }: { control: Control; select: (things: string[]) => void }) {
	const { head, edit } = useDesign();
	const [name, setName] = useState(control.name);
	const tray = useQuery({ queryKey: ["tray"], queryFn: () => take(client.GET("/api/tray")), staleTime: Infinity });
	const parts = tray.data?.parts ?? [];
	const change = (changes: Partial<Control>) =>
		void edit({ kind: "change-control", name: control.name, control: { ...control, ...changes } as Control });
	const refit = (changes: Partial<Control>) => {
		const next = { ...control, ...changes } as Control;
		const part = parts.find((p) => p.kind === partKind(next));
		change({ ...changes, ...(part ? { part: part.id } : {}) } as Partial<Control>);
	};
	const rename = async (event: FormEvent) => {
		event.preventDefault();
		if (await edit({ kind: "rename-control", name: control.name, new_name: name }))
			select([`${control.kind ?? "button"}:${name}`]);
	};
	return (
		<div className="flex flex-col gap-1.5 border-t border-rule pt-3" data-testid="selected">
			<h2 className="font-semibold capitalize">{control.kind ?? "button"}</h2>
			<form onSubmit={(event) => void rename(event)} className="flex gap-2">
				<input
					aria-label="Name"
					className="w-full min-w-0 border border-[#b9b09c] bg-card px-2 py-0.5"
					value={name}
					maxLength={24}
					onChange={(e) => setName(e.target.value)}
				/>
				<Button type="submit" className="!py-0" disabled={name === control.name}>
					Set
				</Button>
			</form>
			<p className="figure text-right text-[12px]">
				{control.x_mm.toFixed(2)}, {control.y_mm.toFixed(2)} <span className="text-ink-2">mm</span>
			</p>
			<Choice
				label="part"
				value={control.part ?? ""}
				options={parts.filter((p) => p.kind === partKind(control)).map((p) => [p.id, p.description] as const)}
				set={(part) => change({ part } as Partial<Control>)}
			/>
			{control.kind === "pad" && (
				<Choice
					label="form"
					value={control.form ?? "four buttons"}
					options={[
						["four buttons", "four buttons"],
						["five-way part", "one five-way part"],
					]}
					set={(form) => refit({ form } as Partial<Control>)}
				/>
			)}
			{control.kind === "stick" && (
				<Choice
					label="sensing"
					value={control.sensing ?? "resistive"}
					options={[
						["resistive", "resistive"],
						["magnetic", "magnetic"],
					]}
					set={(sensing) => refit({ sensing } as Partial<Control>)}
				/>
			)}
			{control.kind === "trigger" && (
				<Choice
					label="sensing"
					value={control.sensing ?? "magnetic"}
					options={[
						["magnetic", "magnetic"],
						["slide", "slide"],
					]}
					set={(sensing) => refit({ sensing } as Partial<Control>)}
				/>
			)}
			{(control.kind === "stick" || control.kind === "trigger") && (
				<Choice
					label="fed at"
					value={control.supply ?? "rail"}
					options={[
						["rail", "the chip's rail"],
						["5 V", "5 V"],
					]}
					set={(supply) => change({ supply } as Partial<Control>)}
				/>
			)}
			{(control.kind === "stick" || control.kind === "encoder") && (
				<label className="flex items-center gap-2 text-[12px]">
					<input
						type="checkbox"
						className="accent-patina"
						checked={control.press ?? true}
						onChange={(e) => change({ press: e.target.checked } as Partial<Control>)}
					/>
					its press is a key
				</label>
			)}
			{(control.kind ?? "button") === "button" && "duty" in control && (
				<Choice
					label="duty"
					value={control.duty ?? "play"}
					options={DUTIES}
					set={(duty) => change({ duty } as Partial<Control>)}
				/>
			)}
			{head.brief.role === "usb-keyboard" && "sends" in control && (
				<Choice
					label="sends"
					value={String(control.sends ?? "")}
					options={[["", "by its number"] as const, ...USAGES.map(([usage, words]) => [String(usage), words] as const)]}
					set={(usage) => change({ sends: usage ? Number(usage) : null } as Partial<Control>)}
				/>
			)}
			<Choice label="worked by" value={control.digit ?? "auto"} options={DIGITS} set={(digit) => change({ digit })} />
			<Choice
				label="turned"
				value={String(control.turn_deg ?? 0) as "0" | "90" | "180" | "270"}
				options={TURNS}
				set={(turn) => change({ turn_deg: Number(turn) as 0 | 90 | 180 | 270 })}
			/>
			<Button
				className="self-start !py-0"
				onClick={() => void edit({ kind: "remove-control", name: control.name })}
				title={`Remove ${roleOf(control)}`}
			>
				Remove it
			</Button>
		</div>
	);
}
