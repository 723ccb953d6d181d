import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Line = Schemas["EndLine"];
type Half = Schemas["Half"];
type Gender = Half["gender"];

const SHOWN_WAYS = 12;
const GENDERS: Gender[] = ["pins", "sockets", "contacts", "cable end"];

/** Every connector with its ways as they are wired, what must be put on it, and what somebody has for it: mating is checked way for way. */
export function PlugsDrawer({ ends }: { ends: Line[] }) {
	if (ends.length === 0) return <p className="p-5 text-ink-2">Nothing of this device is plugged in.</p>;
	return (
		<ul
			className="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(360px,1fr))] content-start items-start gap-4 overflow-y-auto p-4"
			data-testid="plugs"
		>
			{ends.map((line) => (
				<OnePlug key={line.ref} line={line} families={[...new Set(ends.map((e) => e.end.family))]} />
			))}
		</ul>
	);
}

function OnePlug({ line, families }: { line: Line; families: string[] }) {
	const [open, setOpen] = useState(false);
	const kind = line.half ? (line.faults.length ? "stop" : "clear") : "note";
	const worn = line.half && (line.half.opened ?? 0) > line.end.cycles;
	return (
		<li className="border border-line bg-card p-3" data-plug={line.thing} data-mates={kind}>
			<h2 className="flex items-start gap-2 font-semibold">
				<span className="mt-[3px]">
					<Sign kind={kind} size={12} />
				</span>
				{line.ref} {line.purpose}
			</h2>
			<ol className="my-2 flex flex-wrap gap-1" aria-label="Ways in order">
				{line.ways.slice(0, SHOWN_WAYS).map(([pad, net]) => (
					<li key={pad} className="border border-line px-1.5 py-0.5 text-[12px]">
						<span className="figure text-ink-2">{pad}</span> <span className="figure">{net}</span>
					</li>
				))}
				{line.ways.length > SHOWN_WAYS && (
					<li className="py-0.5 text-[12px] text-ink-2">and {line.ways.length - SHOWN_WAYS} more</li>
				)}
			</ol>
			<p>
				<span className="text-ink-2">Wants:</span> {line.other_half}
			</p>
			<p className="text-[12px] text-ink-2">
				May be opened <span className="figure">{line.end.cycles}</span> times; {line.end.source}.
			</p>
			{line.faults.map((fault) => (
				<p key={fault} className="text-stop">
					What you have does not mate: {fault}.
				</p>
			))}
			{line.half && line.faults.length === 0 && <p className="text-clear">What you have mates, way for way.</p>}
			{worn && <p className="text-look">It will be opened more often than it is made for.</p>}
			<Button weight="quiet" className="!px-0" aria-expanded={open} onClick={() => setOpen(!open)}>
				{line.half ? "Change what I have" : "Say what I have"}
			</Button>
			{open && <HalfForm line={line} families={families} done={() => setOpen(false)} />}
		</li>
	);
}

/** The half that lies on the bench, from its drawing or a caliper. */
function HalfForm({ line, families, done }: { line: Line; families: string[]; done: () => void }) {
	const { edit } = useDesign();
	const { end } = line;
	const [half, setHalf] = useState<Half>(
		line.half ?? {
			family: end.family,
			pitch_mm: end.pitch_mm,
			ways: end.ways,
			gender: "sockets",
			contact: "",
			turned: false,
			opened: 0,
		},
	);
	const keep = async (kept: Half | null) => {
		if (await edit({ kind: "say-half", connector: line.thing, half: kept })) done();
	};
	const look = "border border-line bg-card px-1 py-0.5";
	const number = (field: "pitch_mm" | "ways" | "opened", label: string) => (
		<label className="flex items-center gap-1">
			{label}
			<input
				type="number"
				step={field === "pitch_mm" ? 0.01 : 1}
				min={field === "ways" ? 1 : 0}
				className={`figure w-[70px] text-right ${look}`}
				value={half[field]}
				onChange={(event) => setHalf({ ...half, [field]: Number(event.target.value) })}
			/>
		</label>
	);
	return (
		<form
			className="mt-1 flex flex-wrap items-center gap-2 text-[12px]"
			onSubmit={(event) => {
				event.preventDefault();
				void keep(half);
			}}
		>
			<input
				aria-label="Family"
				list="plug-families"
				className={`w-[170px] ${look}`}
				maxLength={30}
				value={half.family}
				onChange={(event) => setHalf({ ...half, family: event.target.value })}
			/>
			<datalist id="plug-families">
				{families.map((family) => (
					<option key={family} value={family} />
				))}
			</datalist>
			<select
				aria-label="Gender"
				className={look}
				value={half.gender}
				onChange={(event) => setHalf({ ...half, gender: GENDERS.find((g) => g === event.target.value) ?? "sockets" })}
			>
				{GENDERS.map((gender) => (
					<option key={gender}>{gender}</option>
				))}
			</select>
			{number("pitch_mm", "pitch, mm")}
			{number("ways", "ways")}
			{end.contact && (
				<select
					aria-label="Side of its contacts"
					className={look}
					value={half.contact}
					onChange={(event) =>
						setHalf({
							...half,
							contact: event.target.value === "top" ? "top" : event.target.value === "bottom" ? "bottom" : "",
						})
					}
				>
					<option value="">side not known</option>
					<option value="top">contacts to the top</option>
					<option value="bottom">contacts to the bottom</option>
				</select>
			)}
			<label className="flex items-center gap-1">
				<input
					type="checkbox"
					checked={half.turned}
					onChange={(event) => setHalf({ ...half, turned: event.target.checked })}
				/>
				way 1 at the other end
			</label>
			{number("opened", "opened in its life")}
			<Button type="submit">Keep</Button>
			{line.half && <Button onClick={() => void keep(null)}>Forget it</Button>}
		</form>
	);
}
