import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { HouseForm } from "./HouseForm";
import { blankHouse, HOUSES, type House, idOf } from "./owned";

/** Board houses: those of one's own first, typed or learnt from their quotes, then the simulated ones. */
export function HousesPage() {
	const queries = useQueryClient();
	const query = useQuery({ queryKey: HOUSES, queryFn: () => take(client.GET("/api/shelf/houses")) });
	const [picked, setPicked] = useState("");
	const [draft, setDraft] = useState<House | null>(null);
	const [problem, setProblem] = useState("");
	const faults = useFaults(draft);
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Opening the shelf.</p>;
	const rows = query.data;
	const row = rows.find((one) => one.house.id === picked) ?? rows[0];
	const taken = rows.map((one) => one.house.id);
	const ask = async (request: () => Promise<void>) => {
		try {
			await request();
			setProblem("");
			await queries.invalidateQueries({ queryKey: HOUSES });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(`${error.sentence} ${error.wayOut}`);
		}
	};
	const keep = (house: House) =>
		ask(async () => {
			const version = row && row.house.id === house.id ? row.version : 0;
			await take(client.PUT("/api/shelf/house", { body: { house, version } }));
			setPicked(house.id);
			setDraft(null);
		});
	const drop = (one: Schemas["HouseRow"]) =>
		ask(async () => {
			const query = { id: one.house.id, version: one.version };
			await take(client.DELETE("/api/shelf/entry", { params: { query } }));
			setPicked("");
		});
	const fresh = idOf("house", "new house", taken);
	const begin = (like: House) =>
		setDraft({
			...like,
			id: fresh,
			name: "",
			about: "",
			known: "typed",
			asks: "",
			late_days: 0,
			quotes: [],
			within_cents: 0,
		});
	return (
		<div className="flex min-h-0 flex-1">
			<nav aria-label="Houses" className="w-[240px] shrink-0 overflow-y-auto border-r border-rule py-3 pr-3">
				<Button
					className="mb-2 w-full"
					data-testid="new-house"
					disabled={!rows.length}
					onClick={() =>
						rows[0] && setDraft(blankHouse((rows.find((one) => one.version === 0) ?? rows[0]).house, fresh))
					}
				>
					New house
				</Button>
				{rows.map((one) => (
					<button
						key={one.house.id}
						type="button"
						data-shelf-house={one.house.id}
						aria-pressed={!draft && row === one}
						className={`mb-1.5 w-full border px-2 py-1.5 text-left ${!draft && row === one ? "border-copper bg-card" : "border-line hover:border-ink-2"}`}
						onClick={() => {
							setDraft(null);
							setPicked(one.house.id);
						}}
					>
						<span className="block leading-tight">{one.house.name}</span>
						<span className="text-[12px] text-ink-2">
							{one.version ? `${one.house.known}, version ${one.version}` : "simulated"}
						</span>
					</button>
				))}
			</nav>
			<section aria-label="House" className="min-w-0 flex-1 overflow-y-auto px-5 py-4" data-testid="house-bench">
				{draft ? (
					<>
						<div className="flex items-center gap-2">
							<h2 className="flex-1 text-[20px] font-semibold">{draft.name || "A house that is being typed"}</h2>
							<Button onClick={() => setDraft(null)}>Leave it as it was</Button>
							<Button
								weight="main"
								data-testid="keep-house"
								disabled={faults.length > 0}
								onClick={() =>
									void keep(row?.house.id === draft.id ? draft : { ...draft, id: idOf("house", draft.name, taken) })
								}
							>
								Keep on the shelf
							</Button>
						</div>
						{problem && <p className="mt-1 text-stop">{problem}</p>}
						{faults.map((fault) => (
							<p key={`${fault.field}${fault.problem}`} className="mt-1 flex items-center gap-1.5 text-[12px]">
								<Sign kind="stop" size={12} /> {fault.field.replace(/_/g, " ")}: {fault.problem}. {fault.way_out}
							</p>
						))}
						<HouseForm key={draft.id} house={draft} put={setDraft} />
					</>
				) : row ? (
					<>
						<div className="flex items-center gap-2">
							<h2 className="flex-1 text-[20px] font-semibold">
								{row.house.name}{" "}
								{row.version === 0 && (
									<span className="border border-legend px-1.5 text-[12px] font-normal text-legend">
										simulated, invented prices
									</span>
								)}
							</h2>
							{row.version > 0 && (
								<Button data-testid="change-house" onClick={() => setDraft(row.house)}>
									Change it
								</Button>
							)}
							{row.version > 0 && <Button onClick={() => void drop(row)}>Take off the shelf</Button>}
							<Button onClick={() => begin(row.house)}>Like this one, but</Button>
						</div>
						{problem && <p className="mt-1 text-stop">{problem}</p>}
						<Said house={row.house} />
					</>
				) : null}
			</section>
		</div>
	);
}

/** What is wrong with a house, asked a moment after it was typed. */
function useFaults(draft: House | null) {
	const [faults, setFaults] = useState<Schemas["PartFault"][]>([]);
	useEffect(() => {
		if (!draft) return setFaults([]);
		let late = false;
		const timer = setTimeout(() => {
			void take(client.POST("/api/shelf/house/look", { body: { house: draft, version: 0 } })).then(
				(found) => !late && setFaults(found),
				() => undefined,
			);
		}, 200);
		return () => {
			late = true;
			clearTimeout(timer);
		};
	}, [draft]);
	return faults;
}

/** What a house can make and asks, to be read. */
function Said({ house }: { house: House }) {
	const money = (cents: number) => `${(cents / 100).toFixed(2)} ${house.currency}`;
	const rows: [string, string][] = [
		["boards", `${money(house.setup_cents)} set-up, ${money(house.area_cents_dm2)} a dm²`],
		...(house.piece_cents ? [["each board beside", money(house.piece_cents)] as [string, string]] : []),
		...(house.copper_layers.some((n) => n > 2)
			? [["inner layers", `${money(house.inner_cents_dm2)} a dm²`] as [string, string]]
			: []),
		["layers", house.copper_layers.join(", ")],
		["thickness", house.thickness_um.map((um) => `${(um / 1000).toFixed(1)} mm`).join(", ")],
		["copper", house.copper_um.map((um) => `${um} µm`).join(", ")],
		["finishes", house.finishes.map((name) => priceOf(name, house.finish_cents, money)).join(", ")],
		["colours", house.colours.map((name) => priceOf(name, house.colour_cents, money)).join(", ")],
		["track, gap, hole", `${house.track_um}, ${house.gap_um}, ${house.hole_um} µm`],
		["boards from, to", `${house.smallest_mm.join(" x ")} mm, ${house.largest_mm.join(" x ")} mm`],
		["takes", `${house.work_days} days of work`],
		["ships", house.shipping.map((way) => `${way.name} ${money(way.cents)}, ${way.days} days`).join("; ")],
		["duty, tax", `${(house.duty_share * 100).toFixed(1)} %, ${(house.vat_share * 100).toFixed(1)} %`],
	];
	return (
		<>
			<p className="mt-1 text-ink-2">
				{house.about && `${house.about.replace(/\.$/, "")}. `}
				{house.known === "learnt" &&
					`Learnt from ${house.quotes.length} quotes; a next one is missed by about ${money(house.within_cents)}.`}
				{house.currency !== "EUR" &&
					` One ${house.currency} is ${house.euro_each} €${house.rate_seen ? `, seen ${house.rate_seen}` : ""}.`}
			</p>
			<table className="mt-3 w-full max-w-[680px] text-[13px]">
				<tbody>
					{rows.map(([words, said]) => (
						<tr key={words} className="border-b border-rule">
							<td className="w-[170px] py-1 text-ink-2">{words}</td>
							<td className="py-1">{said}</td>
						</tr>
					))}
				</tbody>
			</table>
		</>
	);
}

const priceOf = (name: string, prices: Record<string, number>, money: (cents: number) => string) =>
	prices[name] ? `${name} (${money(prices[name])} more)` : name;
