import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../design/Button";
import { Figure, Heading, Line, Percent, Words } from "./fields";
import { pairLines, pairsIn, type Supplier } from "./owned";

type Holds = Schemas["CartColumn"]["holds"];
const HOLDS: Holds[] = ["order number", "maker number", "pieces", "references", "description"];

/** A supplier as it is typed: its money, its shipping by steps, and the columns of its cart. */
export function SupplierForm({ supplier, put }: { supplier: Supplier; put: (supplier: Supplier) => void }) {
	const set = (change: Partial<Supplier>) => put({ ...supplier, ...change });
	const [steps, setSteps] = useState(pairLines(supplier.shipping));
	const { bad } = pairsIn(steps);
	return (
		<div className="mt-3 grid max-w-[900px] grid-cols-2 gap-x-8">
			<div>
				<Heading>Terms</Heading>
				<Line words="its name">
					<Words label="Name of the supplier" value={supplier.name} set={(name) => set({ name })} />
				</Line>
				<Line words="its money">
					<Words
						label="Currency of the supplier"
						wide="w-[56px]"
						value={supplier.currency}
						set={(text) => set({ currency: text.toUpperCase().slice(0, 3) })}
					/>
					{supplier.currency !== "EUR" && (
						<>
							one is
							<Figure
								label="Euro each"
								value={supplier.euro_each}
								unit="€, seen on"
								set={(euro_each) => set({ euro_each })}
							/>
							<input
								type="date"
								aria-label="Day of the rate"
								className="border border-line bg-card px-1"
								value={supplier.rate_seen ?? ""}
								onChange={(event) => set({ rate_seen: event.target.value || null })}
							/>
						</>
					)}
				</Line>
				<Line words="duty">
					<Percent label="Duty" value={supplier.duty_share} set={(duty_share) => set({ duty_share })} />
				</Line>
				<Line words="tax">
					<Percent label="Tax" value={supplier.vat_share} set={(vat_share) => set({ vat_share })} />
				</Line>
				<Line words="days, where not said">
					<Figure label="Days" value={supplier.days} unit="days" set={(n) => set({ days: Math.round(n) })} />
				</Line>
				<Line words="shipping in cents, from cents of goods on">
					<textarea
						aria-label="Shipping steps"
						placeholder={"0 = 690\n6000 = 0"}
						rows={3}
						className="figure w-full border border-line bg-card px-1.5 py-0.5"
						value={steps}
						onChange={(event) => {
							setSteps(event.target.value);
							const read = pairsIn(event.target.value);
							if (!read.bad.length) set({ shipping: read.pairs.map(([from, cents]) => [Number(from), cents]) });
						}}
					/>
					{bad.length > 0 && <span className="text-stop">line {bad.join(", ")} is not like 6000 = 0</span>}
				</Line>
			</div>
			<div>
				<Heading>Its cart</Heading>
				<p className="py-1 text-[12px] text-ink-2">The columns of the file that its page reads in, in their order.</p>
				{supplier.cart.map((column, index) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: a heading that is being typed must not lose its field
					<Line key={index} words={`column ${index + 1}`}>
						<Words
							label={`Heading of column ${index + 1}`}
							wide="w-[84px]"
							value={column.heading}
							set={(heading) => set({ cart: supplier.cart.with(index, { ...column, heading }) })}
						/>
						<select
							aria-label={`What column ${index + 1} holds`}
							className="border border-line bg-card py-0.5"
							value={column.holds}
							onChange={(event) =>
								set({ cart: supplier.cart.with(index, { ...column, holds: event.target.value as Holds }) })
							}
						>
							{HOLDS.map((name) => (
								<option key={name} value={name}>
									{name}
								</option>
							))}
						</select>
						{supplier.cart.length > 1 && (
							<Button
								weight="quiet"
								aria-label={`out: column ${index + 1}`}
								onClick={() => set({ cart: supplier.cart.filter((_, at) => at !== index) })}
							>
								out
							</Button>
						)}
					</Line>
				))}
				<Button
					weight="quiet"
					onClick={() => set({ cart: [...supplier.cart, { heading: "description", holds: "description" }] })}
				>
					One more column
				</Button>
			</div>
		</div>
	);
}
