import { useQuery } from "@tanstack/react-query";
import { client, type Edit, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Choice } from "../../design/Choice";
import { NumberField } from "../../design/NumberField";
import { useDesign } from "../../document/useDesign";
import { Joins } from "./Joins";
import { USAGES } from "./keyUsages";
import type { Field, Thing } from "./kinds";
import { means } from "./kinds";
import { useKinds } from "./useKinds";

type Values = Record<string, unknown>;

/** The one form: name, place and every field of the picked thing, whatever its kind. */
export function ThingForm({ thing, select }: { thing: Thing; select: (names: string[]) => void }) {
	const { head, edit } = useDesign();
	const kind = useKinds().find((k) => k.kind === thing.kind);
	const values = (head.brief.things ?? []).find((t) => t.name === thing.name) as Values | undefined;
	if (!values) return null;
	const change = (changes: Values) =>
		void edit({ kind: "change-thing", name: thing.name, changes } as Extract<Edit, { kind: "change-thing" }>);
	const rename = async (name: string) => {
		if (name && name !== thing.name && (await edit({ kind: "rename-thing", name: thing.name, new_name: name })))
			select([name]);
	};
	return (
		<div className="flex flex-col gap-1.5 border-t border-rule pt-3" data-testid="selected">
			<h2 className="font-semibold">{thing.title}</h2>
			<label className="grid grid-cols-[84px_1fr] items-center gap-x-2 text-[12px]">
				<span className="text-ink-2">Name</span>
				<input
					key={thing.name}
					aria-label="Name"
					className="w-full min-w-0 border border-line bg-card px-1 py-0.5"
					defaultValue={thing.name}
					maxLength={24}
					onBlur={(event) => void rename(event.target.value.trim())}
					onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
				/>
			</label>
			<PlaceFields thing={thing} />
			<Belonging thing={thing} values={values} change={change} />
			{kind?.fields
				.filter((field) => means(field, values, kind.usual))
				.map((field) => (
					<FieldRow key={field.name} field={field} values={values} thing={thing} change={change} />
				))}
			<Facts thing={thing} />
			<div className="flex gap-2">
				<Button
					className="!py-0"
					onClick={() => void edit({ kind: "remove-things", names: [thing.name] }).then((done) => done && select([]))}
				>
					Remove it
				</Button>
				{thing.placed && (thing.group === "brains" || thing.group === "sounds" || thing.group === "shows") && (
					<Button className="!py-0" onClick={() => void edit({ kind: "release-thing", name: thing.name })}>
						Let it be placed
					</Button>
				)}
			</div>
		</div>
	);
}

/** Where it is: typed in millimetres and degrees, side and board chosen. */
function PlaceFields({ thing }: { thing: Thing }) {
	const { head, edit } = useDesign();
	const move = (changes: Partial<Extract<Edit, { kind: "move-thing" }>>) =>
		void edit({ kind: "move-thing", name: thing.name, x_mm: thing.x_mm, y_mm: thing.y_mm, ...changes });
	const outline = head.boards.find((board) => board.name === thing.board)?.outline_mm ?? [];
	const [w, h] = [Math.max(...outline.map((p) => p[0])), Math.max(...outline.map((p) => p[1]))];
	return (
		<>
			<NumberField label="Across" unit="mm" value={round(thing.x_mm)} set={(x) => x != null && move({ x_mm: x })} />
			<NumberField label="Up" unit="mm" value={round(thing.y_mm)} set={(y) => y != null && move({ y_mm: y })} />
			<NumberField
				label="From right"
				unit="mm"
				value={round(w - thing.x_mm)}
				set={(x) => x != null && move({ x_mm: round(w - x) })}
			/>
			<NumberField
				label="From top"
				unit="mm"
				value={round(h - thing.y_mm)}
				set={(y) => y != null && move({ y_mm: round(h - y) })}
			/>
			<NumberField
				label="Turned"
				unit="°"
				value={thing.turn_deg}
				set={(turn) => turn != null && move({ turn_deg: Math.round(turn) })}
			/>
			<Choice
				label="Side"
				value={thing.far ? "far" : "near"}
				options={[
					["near", "near side"],
					["far", "far side"],
				]}
				set={(side) => move({ far: side === "far" })}
			/>
			{head.boards.length > 1 && (
				<Choice
					label="Board"
					value={thing.board}
					options={head.boards.map((board) => [board.name, board.name] as const)}
					set={(board) => move({ board })}
				/>
			)}
			{!thing.placed && <p className="text-[12px] text-ink-2">It has no place yet; Loquet finds one.</p>}
		</>
	);
}

const FED = { source: "Feeds", "from a rail": "Made from", "by a rail": "Fed by" } as const;

/** The rail that it takes or feeds, and the brain that reads it, where there is a choice. */
function Belonging({ thing, values, change }: { thing: Thing; values: Values; change: (changes: Values) => void }) {
	const { head } = useDesign();
	const rails = head.rails.filter((rail) => rail.name !== thing.name);
	const [rail, brain] = [String(values.rail ?? ""), String(values.brain ?? "")];
	const first = thing.fed === "source" ? "a rail of its own" : `${head.rails[0]?.words}`;
	const sources = new Set(head.things.filter((t) => t.fed === "source").map((t) => t.name));
	const choices =
		thing.fed === "source"
			? rails.filter((r) => sources.has(r.name))
			: rails.slice(head.rails[0]?.name === thing.name ? 0 : 1);
	return (
		<>
			{thing.fed && choices.length > 0 && (
				<Choice
					label={FED[thing.fed]}
					value={rail}
					options={[["", first] as const, ...choices.map((r) => [r.name, r.words] as const)]}
					set={(name) => change({ rail: name })}
				/>
			)}
			{head.brains.length > 1 && thing.asks.length > 0 && thing.group !== "brains" && (
				<Choice
					label="Read by"
					value={brain}
					options={head.brains.map((name, index) => [index ? name : "", name] as const)}
					set={(name) => change({ brain: name })}
				/>
			)}
		</>
	);
}

function FieldRow({
	field,
	values,
	thing,
	change,
}: {
	field: Field;
	values: Values;
	thing: Thing;
	change: (changes: Values) => void;
}) {
	const tray = useQuery({ queryKey: ["tray"], queryFn: () => take(client.GET("/api/tray")), staleTime: Infinity });
	const words = (id: string) => {
		const part = tray.data?.parts.find((p) => p.id === id) ?? tray.data?.screens.find((s) => s.id === id);
		return part?.description ?? id;
	};
	const label = field.title;
	const value = values[field.name];
	if (field.name === "joins")
		return <Joins part={String(values.part ?? "")} text={String(value ?? "")} set={(joins) => change({ joins })} />;
	if (field.name === "sends")
		return (
			<Choice
				label="Sends"
				value={String(value ?? "")}
				options={[["", "by its number"] as const, ...USAGES.map(([usage, text]) => [String(usage), text] as const)]}
				set={(usage) => change({ sends: usage ? Number(usage) : null })}
			/>
		);
	switch (field.what) {
		case "part":
			if (thing.parts.length === 0 || onlyOne(thing.parts, value)) return null;
			return (
				<Choice
					label={label}
					value={String(value ?? "")}
					options={[
						...(thing.parts.includes(String(value ?? "")) ? [] : [[String(value ?? ""), "choose one"] as const]),
						...thing.parts.map((id) => [id, words(id)] as const),
					]}
					set={(part) => {
						const screen = tray.data?.screens.find((s) => s.id === part);
						change(screen ? { part, bus: screen.bus } : { part });
					}}
				/>
			);
		case "choice":
			return (
				<Choice
					label={label}
					value={String(value ?? "")}
					options={field.choices.map((choice) => [choice, choice] as const)}
					set={(choice) => change({ [field.name]: field.numbers ? Number(choice) : choice })}
				/>
			);
		case "yes or no":
			return (
				<label className="flex items-center gap-2 text-[12px]">
					<input
						type="checkbox"
						className="accent-patina"
						checked={value === true}
						onChange={(event) => change({ [field.name]: event.target.checked })}
					/>
					{label}
				</label>
			);
		case "number":
		case "whole":
			return (
				<NumberField
					label={label}
					unit={field.unit}
					value={typeof value === "number" ? value : null}
					empty={field.empty}
					set={(number) => change({ [field.name]: number })}
				/>
			);
		case "text":
			return (
				<label className="grid grid-cols-[84px_1fr] items-center gap-x-2 text-[12px]">
					<span className="text-ink-2">{label}</span>
					<input
						key={String(value ?? "")}
						aria-label={label}
						className="w-full min-w-0 border border-line bg-card px-1 py-0.5"
						defaultValue={String(value ?? "")}
						onBlur={(event) =>
							event.target.value !== String(value ?? "") && change({ [field.name]: event.target.value })
						}
						onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
					/>
				</label>
			);
	}
}

/** What it asks of its brain and draws, and whether it can be made yet. */
function Facts({ thing }: { thing: Thing }) {
	return (
		<div className="text-[12px] text-ink-2" data-testid="asks">
			{thing.asks.length > 0 && (
				<p>
					Asks <span className="figure">{thing.asks.length}</span> {thing.asks.length === 1 ? "pin" : "pins"}:{" "}
					{thing.asks.slice(0, 4).join("; ")}
					{thing.asks.length > 4 && " …"}
				</p>
			)}
			{thing.draws_ma > 0 && (
				<p>
					Draws up to <span className="figure">{thing.draws_ma}</span> mA.
				</p>
			)}
		</div>
	);
}

/** Whether there is one part alone that ships with Loquet, and it is taken. */
const onlyOne = (parts: readonly string[], value: unknown) =>
	parts.length === 1 && parts[0] === value && !String(value).startsWith("own/");

const round = (value: number) => Math.round(value * 1000) / 1000;
