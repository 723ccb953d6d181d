import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Card = Schemas["MeasuringCard"];

/** Parts whose pins have to be made sure of before they are soldered: what to probe, what to expect, and who made sure. */
export function MeasuringDrawer({ cards }: { cards: Card[] }) {
	const { head } = useDesign();
	if (cards.length === 0)
		return <p className="p-5 text-ink-2">No part of this device has look-alikes, and all pins are known.</p>;
	return (
		<div className="min-h-0 flex-1 overflow-y-auto p-4" data-testid="cards">
			<p className="mb-3 flex items-center gap-3">
				<a
					className="text-patina underline"
					href={`/api/projects/${head.project}/measuring-cards`}
					target="_blank"
					rel="noreferrer"
				>
					Cards to print, A5
				</a>
				<span className="text-[12px] text-ink-2">Measure with nothing plugged in and no cell in its holder.</span>
			</p>
			<ul className="grid grid-cols-[repeat(auto-fill,minmax(430px,1fr))] items-start gap-4">
				{cards.map((card) => (
					<OneCard key={card.part} card={card} />
				))}
			</ul>
		</div>
	);
}

function OneCard({ card }: { card: Card }) {
	return (
		<li className="border border-line bg-card p-3" data-card={card.part} data-confirmed={card.confirmed !== null}>
			<h2 className="flex items-start gap-2 font-semibold">
				<span className="mt-[3px]">
					<Sign kind={card.confirmed ? "clear" : "look"} size={12} />
				</span>
				{card.title}
			</h2>
			<p className="text-[12px] text-ink-2">
				{card.things.join(", ")}: {card.why}.
			</p>
			<ol className="my-2 flex flex-wrap gap-1" aria-label="Pins in order">
				{card.pins.map(([number, name]) => (
					<li key={number} className="border border-line px-1.5 py-0.5 text-[12px]">
						<span className="figure text-ink-2">{number}</span> {name}
					</li>
				))}
			</ol>
			<table className="w-full text-[12px]">
				<thead>
					<tr className="border-b border-ink text-left text-ink-2 [&>th]:py-0.5 [&>th]:font-normal">
						<th>between</th>
						<th>expect</th>
					</tr>
				</thead>
				<tbody>
					{card.probes.map((probe) => (
						<tr key={`${probe.first} ${probe.second}`} className="border-b border-rule align-top [&>td]:py-1">
							<td className="w-[190px] pr-3">
								{probe.first} and {probe.second}
							</td>
							<td>{probe.expect}</td>
						</tr>
					))}
				</tbody>
			</table>
			<Confirming card={card} />
			<OtherOrder card={card} />
		</li>
	);
}

function Confirming({ card }: { card: Card }) {
	const { edit } = useDesign();
	const [how, setHow] = useState<"drawing" | "measured">("measured");
	const [words, setWords] = useState("");
	if (card.confirmed)
		return (
			<p className="mt-2 flex items-center gap-2 text-[12px]">
				<span>
					{card.confirmed.how === "drawing" ? "Read from its drawing" : "Measured"}: {card.confirmed.words}
				</span>
				<Button
					weight="quiet"
					onClick={() =>
						void edit({ kind: "confirm-part", part: card.part, how: card.confirmed?.how ?? how, words: "" })
					}
				>
					Take it back
				</Button>
			</p>
		);
	const put = () => words.trim() && void edit({ kind: "confirm-part", part: card.part, how, words: words.trim() });
	return (
		<div className="mt-2 flex items-center gap-2 text-[12px]">
			<select
				aria-label={`How ${card.part} was made sure of`}
				className="border border-line bg-paper px-1 py-1"
				value={how}
				onChange={(event) => setHow(event.target.value === "drawing" ? "drawing" : "measured")}
			>
				<option value="measured">measured</option>
				<option value="drawing">from its drawing</option>
			</select>
			<input
				aria-label={`Words for ${card.part}`}
				className="min-w-0 flex-1 border border-line bg-paper px-1.5 py-1"
				placeholder={how === "drawing" ? "drawing, page, date" : "by whom, when"}
				maxLength={120}
				value={words}
				onChange={(event) => setWords(event.target.value)}
				onKeyDown={(event) => event.key === "Enter" && put()}
			/>
			<Button disabled={!words.trim()} onClick={put}>
				Pins are as shown
			</Button>
		</div>
	);
}

/** Where the meter says another order: it is typed pin by pin, shown beside the catalogue's, and taken over when that is pressed; recipes follow it. */
function OtherOrder({ card }: { card: Card }) {
	const { edit } = useDesign();
	const [open, setOpen] = useState(false);
	const [found, setFound] = useState<Record<string, string>>(() => Object.fromEntries(card.pins));
	const names = [...new Set(card.usual.map(([, name]) => name))];
	const usual = new Map(card.usual);
	const measured = card.pins.some(([number, name]) => usual.get(number) !== name);
	const changed = card.pins.filter(([number, name]) => found[number] !== name);
	const whole =
		Object.values(found).sort().join() ===
		card.usual
			.map(([, name]) => name)
			.sort()
			.join();
	const take = async (order: Record<string, string> | null) => {
		if (await edit({ kind: "set-pin-order", part: card.part, order })) setOpen(false);
	};
	return (
		<div className="mt-2 text-[12px]">
			{measured && (
				<p className="text-look">
					Pins as they were measured; the catalogue has{" "}
					{card.usual.map(([number, name]) => `${number} ${name}`).join(", ")}.{" "}
					<Button weight="quiet" className="!p-0 text-[12px]" onClick={() => void take(null)}>
						Back to the catalogue's
					</Button>
				</p>
			)}
			<Button weight="quiet" className="!px-0 text-[12px]" aria-expanded={open} onClick={() => setOpen(!open)}>
				I measured another order
			</Button>
			{open && (
				<div className="flex flex-wrap items-center gap-1.5">
					{card.pins.map(([number]) => (
						<label key={number} className="flex items-center gap-1 border border-line px-1 py-0.5">
							<span className="figure text-ink-2">{number}</span>
							<select
								aria-label={`Pin ${number} of ${card.part}`}
								className="bg-card"
								value={found[number]}
								onChange={(event) => setFound({ ...found, [number]: event.target.value })}
							>
								{names.map((name) => (
									<option key={name}>{name}</option>
								))}
							</select>
						</label>
					))}
					<Button className="!py-0" disabled={!whole || changed.length === 0} onClick={() => void take(found)}>
						{changed.length
							? `Change ${changed.map(([number]) => number).join(", ")} in every circuit of this project`
							: "Nothing is different"}
					</Button>
					{!whole && <span className="text-stop">Every pin of the part must stand there as often as it has it.</span>}
				</div>
			)}
		</div>
	);
}
