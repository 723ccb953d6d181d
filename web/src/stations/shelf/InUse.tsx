import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure, Heading, Line, Words } from "./fields";
import type { Part, Role } from "./typed";

type Use = Schemas["InUse"];
type Mates = Schemas["Mates"];
const STAYS: Use = {
	through_mm: 0,
	opening_mm: [0, 0],
	round: true,
	travel_mm: 0,
	leans_deg: 0,
	capped: false,
	plug: null,
	bend_mm: 0,
	bridged_mm: 0,
};
const MATES: Mates = {
	family: "square posts",
	gender: "pins",
	cycles: 100,
	source: "",
	keyed: false,
	latch: false,
	shape: false,
};
const PLUG: Schemas["Plug"] = { words: "USB-C plug", wide_mm: 12.35, high_mm: 6.5, long_mm: 35, meets_mm: 0.8 };

/** How a part goes on beyond its body: the wall, the plug, what it mates with, what goes with it, how it is tried. */
export function InUse({
	part,
	role,
	put,
}: {
	part: Part;
	role: Role | undefined;
	put: ((change: Partial<Part>) => void) | null;
}) {
	const use = part.in_use ?? role?.in_use ?? null;
	const mates = part.mates ?? role?.mates ?? null;
	const withIt = part.with_it.length ? part.with_it : (role?.with_it ?? []);
	const trial = part.trial || (role?.trial ?? "");
	if (!put) {
		const rows = [
			...(mates ? [["mates", matesWords(mates, part.contact)]] : []),
			...(use ? rowsOfUse(use) : []),
			...(withIt.length ? [["bought with it", withIt.join(", ")]] : []),
			...(trial ? [["tried before", trial]] : []),
		];
		if (rows.length === 0) return null;
		return (
			<section aria-label="In use" className="mt-4 text-[12px]">
				<Heading>In use</Heading>
				{rows.map(([words, value]) => (
					<div key={words} className="mt-1 grid grid-cols-[110px_1fr] gap-x-2 leading-tight">
						<span className="text-ink-2">{words}</span>
						<span>{value}</span>
					</div>
				))}
			</section>
		);
	}
	const say = (change: Partial<Use>) => put({ in_use: { ...(use ?? STAYS), ...change } });
	const mate = (change: Partial<Mates>) => put({ mates: { ...(mates ?? MATES), ...change } });
	return (
		<section aria-label="In use" className="mt-4 text-[12px]">
			<Heading>In use</Heading>
			<Group
				words="Through the wall and beside it"
				own={part.in_use != null}
				kind={use ? part.kind : ""}
				begin={() => put({ in_use: use ?? STAYS })}
				drop={() => put({ in_use: null })}
			>
				<UseFields use={use ?? STAYS} say={say} />
			</Group>
			<Group
				words="What it mates with"
				own={part.mates != null}
				kind={mates ? part.kind : ""}
				begin={() => put({ mates: mates ?? MATES })}
				drop={() => put({ mates: null })}
			>
				<MatesFields mates={mates ?? MATES} mate={mate} />
			</Group>
			{(mates?.gender === "contacts" || part.contact !== "") && (
				<Line words="touches a flat cable">
					<select
						aria-label="Side of a flat cable that it touches"
						className="border border-line bg-card px-1 py-0.5"
						value={part.contact}
						onChange={(event) => put({ contact: event.target.value as Part["contact"] })}
					>
						<option value="">not known, or no cable</option>
						<option value="top">at its top side</option>
						<option value="bottom">at its bottom side</option>
					</select>
				</Line>
			)}
			<Line words="bought with each">
				<Words
					label="What is bought with each"
					hint={role?.with_it.join(", ") || "cap, nut, lead: with commas"}
					value={part.with_it.join(", ")}
					set={(text) => put({ with_it: text === "" ? [] : text.split(/,\s*/) })}
				/>
			</Line>
			<Line words="tried before it is soldered">
				<Words
					label="How it is tried before it is soldered"
					hint={role?.trial || "too cheap to try"}
					value={part.trial}
					set={(trial) => put({ trial })}
				/>
			</Line>
		</section>
	);
}

/** Fields that a part may leave to its kind. */
function Group({
	words,
	own,
	kind,
	begin,
	drop,
	children,
}: {
	words: string;
	own: boolean;
	kind: string;
	begin: () => void;
	drop: () => void;
	children: ReactNode;
}) {
	return (
		<div className="mt-2">
			<div className="flex items-center justify-between gap-2">
				<span className="font-semibold">{words}</span>
				{own ? (
					<Button onClick={drop}>{kind ? "As its kind" : "Nothing"}</Button>
				) : (
					<Button aria-label={`${words}: say it`} onClick={begin}>
						Say it
					</Button>
				)}
			</div>
			{own ? children : <p className="text-ink-2">{kind ? `As every ${kind}.` : "Nothing: it stays inside."}</p>}
		</div>
	);
}

function UseFields({ use, say }: { use: Use; say: (change: Partial<Use>) => void }) {
	const [wide, high] = use.opening_mm;
	const plug = use.plug ?? null;
	return (
		<>
			<Line words="comes through by">
				<Figure
					label="Comes through the wall by, in mm"
					value={use.through_mm}
					unit="mm, 0 stays inside"
					set={(through_mm) => say({ through_mm })}
				/>
			</Line>
			<Line words="opening">
				<Figure label="Opening across in mm" value={wide} unit="x" set={(n) => say({ opening_mm: [n, high] })} />
				<Figure label="Opening up in mm" value={high} unit="mm" set={(n) => say({ opening_mm: [wide, n] })} />
				<Tick label="round" on={use.round} set={(round) => say({ round })} />
			</Line>
			<Line words="moves">
				<Figure label="Moves down by, in mm" value={use.travel_mm} unit="mm down," set={(n) => say({ travel_mm: n })} />
				<Figure label="Leans by, in degrees" value={use.leans_deg} unit="° over" set={(n) => say({ leans_deg: n })} />
				<Tick label="a cap stands on it" on={use.capped} set={(capped) => say({ capped })} />
			</Line>
			<Line words="wires bend above it">
				<Figure label="Room of its wires in mm" value={use.bend_mm} unit="mm" set={(bend_mm) => say({ bend_mm })} />
			</Line>
			<Line words="a slider reaches in by">
				<Figure
					label="A slider of the shell reaches in by, in mm"
					value={use.bridged_mm}
					unit="mm"
					set={(n) => say({ bridged_mm: n })}
				/>
			</Line>
			<Line words="plug put into it">
				<Tick label="there is one" on={plug !== null} set={(on) => say({ plug: on ? PLUG : null })} />
				{plug && (
					<>
						<Words
							label="What is plugged into it"
							wide="w-[120px]"
							value={plug.words}
							set={(words) => say({ plug: { ...plug, words } })}
						/>
						<Figure
							label="Plug across in mm"
							value={plug.wide_mm}
							unit="x"
							set={(n) => say({ plug: { ...plug, wide_mm: n } })}
						/>
						<Figure
							label="Plug up in mm"
							value={plug.high_mm}
							unit="x"
							set={(n) => say({ plug: { ...plug, high_mm: n } })}
						/>
						<Figure
							label="Plug with the bend of its lead in mm"
							value={plug.long_mm}
							unit="mm long"
							set={(n) => say({ plug: { ...plug, long_mm: n } })}
						/>
						<Figure
							label="Its grip meets the wall at, in mm"
							value={plug.meets_mm}
							unit="mm behind the wall at most"
							set={(n) => say({ plug: { ...plug, meets_mm: n } })}
						/>
					</>
				)}
			</Line>
		</>
	);
}

function MatesFields({ mates, mate }: { mates: Mates; mate: (change: Partial<Mates>) => void }) {
	return (
		<>
			<Line words="family, in own words">
				<Words label="Family" value={mates.family} set={(family) => mate({ family })} />
			</Line>
			<Line words="this half has">
				<select
					aria-label="What this half has"
					className="border border-line bg-card px-1 py-0.5"
					value={mates.gender}
					onChange={(event) => mate({ gender: event.target.value as Mates["gender"] })}
				>
					{["pins", "sockets", "contacts", "cable end"].map((gender) => (
						<option key={gender}>{gender}</option>
					))}
				</select>
				<Tick label="keyed" on={mates.keyed} set={(keyed) => mate({ keyed })} />
				<Tick label="latched" on={mates.latch} set={(latch) => mate({ latch })} />
				<Tick label="a shape without pitch" on={mates.shape} set={(shape) => mate({ shape })} />
			</Line>
			<Line words="may be opened">
				<Figure
					label="How often it may be opened"
					value={mates.cycles}
					unit="times, by"
					set={(n) => mate({ cycles: n })}
				/>
				<Words label="Where that stands" wide="w-[150px]" value={mates.source} set={(source) => mate({ source })} />
			</Line>
		</>
	);
}

function Tick({ label, on, set }: { label: string; on: boolean; set: (on: boolean) => void }) {
	return (
		<label className="flex items-center gap-1">
			<input type="checkbox" checked={on} onChange={(event) => set(event.target.checked)} />
			{label}
		</label>
	);
}

function matesWords(mates: Mates, contact: Part["contact"]): string {
	const more = [mates.keyed && "keyed", mates.latch && "latched", contact && `contacts to the ${contact}`].filter(
		Boolean,
	);
	return `${[`${mates.family}, ${mates.gender}`, ...more].join(", ")}; may be opened ${mates.cycles} times`;
}

/** What its use asks of the shell, a row each. */
function rowsOfUse(use: Use): string[][] {
	const rows: string[][] = [];
	const [wide, high] = use.opening_mm;
	if (use.through_mm > 0)
		rows.push([
			"through the wall",
			`${use.through_mm} mm of it, in an opening of ${use.round ? `${wide} mm` : `${wide} x ${high} mm`}`,
		]);
	const moves = [use.travel_mm > 0 && `${use.travel_mm} mm down`, use.leans_deg > 0 && `${use.leans_deg}° over`].filter(
		Boolean,
	);
	if (moves.length) rows.push(["moves", `${moves.join(", ")}${use.capped ? ", under a cap" : ""}`]);
	if (use.plug)
		rows.push([
			"plugged into it",
			`${use.plug.words}, ${use.plug.wide_mm} x ${use.plug.high_mm} x ${use.plug.long_mm} mm`,
		]);
	if (use.bend_mm > 0) rows.push(["wires above it", `${use.bend_mm} mm`]);
	if (use.bridged_mm > 0) rows.push(["slider of the shell", `reaches ${use.bridged_mm} mm in`]);
	return rows;
}
