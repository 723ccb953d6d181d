import { useState } from "react";
import { Button } from "../../design/Button";
import { Figure, Heading, Line, Listed, Percent, Words } from "./fields";
import { type House, namesIn, numbersIn, pairLines, pairsIn } from "./owned";
import { QuotesSeen } from "./QuotesSeen";

type Put = (house: House) => void;
const LIMITS: [keyof House, string][] = [
	["track_um", "least track"],
	["gap_um", "least gap"],
	["hole_um", "least hole"],
	["ring_um", "least ring"],
	["edge_um", "copper to the edge"],
	["mask_web_um", "least web of mask"],
	["mask_grow_um", "mask beyond a pad"],
	["hole_gap_um", "between holes"],
	["legend_height_um", "height of the legend"],
	["legend_stroke_um", "stroke of the legend"],
];

/** A house as it is typed: prices first, learnt from its quotes or one by one, then its limits and days. */
export function HouseForm({ house, put }: { house: House; put: Put }) {
	const set = (change: Partial<House>) => put({ ...house, ...change });
	const [round, setRound] = useState(0);
	const takeAll = (learnt: House) => {
		put(learnt);
		setRound(round + 1);
	};
	const way = house.shipping[0] ?? { name: "parcel", cents: 0, days: 5 };
	return (
		<div className="mt-3">
			<div className="grid grid-cols-2 gap-x-8">
				<Line words="its name">
					<Words label="Name of the house" value={house.name} set={(name) => set({ name })} />
				</Line>
				<Line words="what it is">
					<Words label="About the house" value={house.about} set={(about) => set({ about })} />
				</Line>
				<Line words="its money">
					<Words
						label="Currency of the house"
						wide="w-[56px]"
						value={house.currency}
						set={(text) => set({ currency: text.toUpperCase().slice(0, 3) })}
					/>
					{house.currency !== "EUR" && (
						<>
							one is
							<Figure
								label="Euro each"
								value={house.euro_each}
								unit="€, seen on"
								set={(euro_each) => set({ euro_each })}
							/>
							<input
								type="date"
								aria-label="Day of the rate"
								className="border border-line bg-card px-1"
								value={house.rate_seen ?? ""}
								onChange={(event) => set({ rate_seen: event.target.value || null })}
							/>
						</>
					)}
				</Line>
			</div>
			<Heading>Its quotes tell its prices</Heading>
			<QuotesSeen house={house} put={takeAll} />
			<div key={round} className="mt-2 grid grid-cols-2 gap-x-8">
				<div>
					<Heading>Prices</Heading>
					<Price words="set-up" house={house} field="setup_cents" set={set} />
					<Price words="a dm² of board" house={house} field="area_cents_dm2" set={set} />
					<Price words="a dm² of inner layers" house={house} field="inner_cents_dm2" set={set} />
					<Price words="each board beside" house={house} field="piece_cents" set={set} />
					<Price words="a thin board" house={house} field="thin_cents" set={set} />
					<Line words="finishes">
						<Listed label="Finishes" value={house.finishes} set={(text) => set({ finishes: namesIn(text) })} />
					</Line>
					<Pairs
						words="a finish costs more"
						hint="gold = 1700"
						value={Object.entries(house.finish_cents)}
						set={(pairs) => set({ finish_cents: Object.fromEntries(pairs) })}
					/>
					<Line words="colours">
						<Listed label="Colours" value={house.colours} set={(text) => set({ colours: namesIn(text) })} />
					</Line>
					<Pairs
						words="a colour costs more"
						hint="black = 300"
						value={Object.entries(house.colour_cents)}
						set={(pairs) => set({ colour_cents: Object.fromEntries(pairs) })}
					/>
					<Pairs
						words="share of the price from"
						hint="20 = 0.86"
						value={house.breaks}
						set={(pairs) => set({ breaks: pairs.map(([from, share]) => [Number(from), share]) })}
					/>
					<Price words="stencil, a sheet" house={house} field="stencil_cents" set={set} />
					<Price words="stencil, in a frame" house={house} field="frame_cents" set={set} />
					<Price words="fitting, set-up" house={house} field="fit_setup_cents" set={set} />
					<Price words="fitting, a part" house={house} field="fit_cents" set={set} />
					<Line words="duty and tax">
						<Percent label="Duty" value={house.duty_share} set={(duty_share) => set({ duty_share })} />
						<Percent label="Tax" value={house.vat_share} set={(vat_share) => set({ vat_share })} />
					</Line>
				</div>
				<div>
					<Heading>Days and shipping</Heading>
					<Line words="making takes">
						<Figure
							label="Days of work"
							value={house.work_days}
							unit="days of work"
							set={(n) => set({ work_days: Math.round(n) })}
						/>
					</Line>
					{house.shipping.map((one, index) => (
						// biome-ignore lint/suspicious/noArrayIndexKey: a name that is being typed must not lose its field
						<Line key={index} words={index ? "or by" : "ships by"}>
							<Words
								label={`Shipping ${index + 1}`}
								wide="w-[84px]"
								value={one.name}
								set={(name) => set({ shipping: house.shipping.with(index, { ...one, name }) })}
							/>
							<Figure
								label={`Cents of shipping ${index + 1}`}
								value={one.cents}
								unit="cents"
								set={(cents) => set({ shipping: house.shipping.with(index, { ...one, cents }) })}
							/>
							<Figure
								label={`Days of shipping ${index + 1}`}
								value={one.days}
								unit="days"
								set={(n) => set({ shipping: house.shipping.with(index, { ...one, days: Math.round(n) }) })}
							/>
							{house.shipping.length > 1 && (
								<Button
									weight="quiet"
									aria-label={`out: shipping ${index + 1}`}
									onClick={() => set({ shipping: house.shipping.filter((_, at) => at !== index) })}
								>
									out
								</Button>
							)}
						</Line>
					))}
					<Button weight="quiet" onClick={() => set({ shipping: [...house.shipping, way] })}>
						One more way
					</Button>
					<Line words="closed on, MM-DD">
						<Listed label="Closed days" value={house.closed_on} set={(text) => set({ closed_on: namesIn(text) })} />
					</Line>
					<Heading>What it can make</Heading>
					<p className="py-1 text-[12px] text-ink-2">Usual limits stand here until its own are typed.</p>
					{LIMITS.map(([field, words]) => (
						<Line key={field} words={words}>
							<Figure
								label={words}
								value={house[field] as number}
								unit="µm"
								set={(n) => set({ [field]: Math.round(n) })}
							/>
						</Line>
					))}
					<Line words="copper layers">
						<Listed
							label="Copper layers"
							value={house.copper_layers}
							set={(text) => set({ copper_layers: numbersIn(text) })}
						/>
					</Line>
					<Line words="thickness of boards, µm">
						<Listed
							label="Thicknesses"
							value={house.thickness_um}
							set={(text) => set({ thickness_um: numbersIn(text) })}
						/>
					</Line>
					<Line words="thickness of copper, µm">
						<Listed label="Coppers" value={house.copper_um} set={(text) => set({ copper_um: numbersIn(text) })} />
					</Line>
					<Line words="largest board, mm">
						<Listed
							label="Largest board"
							value={house.largest_mm}
							set={(text) => {
								const [w = 0, h = 0] = numbersIn(text);
								set({ largest_mm: [w, h] });
							}}
						/>
					</Line>
				</div>
			</div>
		</div>
	);
}

function Price({
	words,
	house,
	field,
	set,
}: {
	words: string;
	house: House;
	field: keyof House;
	set: (change: Partial<House>) => void;
}) {
	return (
		<Line words={words}>
			<Figure label={words} value={house[field] as number} unit="cents" set={(n) => set({ [field]: n })} />
		</Line>
	);
}

function Pairs({
	words,
	hint,
	value,
	set,
}: {
	words: string;
	hint: string;
	value: readonly (readonly [string | number, number])[];
	set: (pairs: [string, number][]) => void;
}) {
	const [text, setText] = useState(pairLines(value));
	const { bad } = pairsIn(text);
	return (
		<Line words={words}>
			<textarea
				aria-label={words}
				placeholder={hint}
				rows={Math.min(4, Math.max(1, value.length))}
				className="figure w-full border border-line bg-card px-1.5 py-0.5"
				value={text}
				onChange={(event) => {
					setText(event.target.value);
					const read = pairsIn(event.target.value);
					if (!read.bad.length) set(read.pairs);
				}}
			/>
			{bad.length > 0 && (
				<span className="text-stop">
					line {bad.join(", ")} is not like {hint}
				</span>
			)}
		</Line>
	);
}
