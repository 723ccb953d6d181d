import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";

type Landed = Schemas["LandedView"];
const [WIDE, HIGH] = [420, 150];
const INKS = ["var(--color-copper)", "var(--color-patina)", "var(--color-legend)"];
const DASHES = [undefined, "7 4", "2 3", "9 3 2 3"];
/** Every house has a colour and a dash of its own: twelve pairs before one comes again. */
const inkOf = (index: number) => INKS[index % INKS.length];
const dashOf = (index: number) => DASHES[(index + Math.floor(index / INKS.length)) % DASHES.length];

/** What the devices cost at the door with each house, and the curve over quantities. */
export function Costs() {
	const { head } = useDesign();
	const { soldered_by } = head.brief.making;
	const [stencil, setStencil] = useState<"none" | "sheet" | "framed">(soldered_by === "hand iron" ? "none" : "sheet");
	const [fitting, setFitting] = useState<"hand" | "house">(soldered_by === "assembly house" ? "house" : "hand");
	const quantity = head.brief.quantity;
	const query = useQuery({
		queryKey: ["project", head.project, "landed", head.version, quantity, stencil, fitting],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/landed", {
					params: { path: { project_id: head.project }, query: { quantity, stencil, fitting } },
				}),
			),
		placeholderData: (before) => before,
	});
	const rows = query.data ?? [];
	const about = rows.find((row) => row.house === head.choices.house) ?? rows[0];
	return (
		<section aria-label="Cost at the door" className="border-t border-rule px-4 py-3">
			<div className="mb-2 flex flex-wrap items-center gap-3">
				<h2 className="font-semibold">
					At the door, for <span className="figure">{quantity}</span> devices
				</h2>
				<select
					aria-label="Stencil"
					className="border border-line bg-card px-1 py-0.5"
					value={stencil}
					onChange={(event) => setStencil(event.target.value as typeof stencil)}
				>
					<option value="none">no stencil</option>
					<option value="sheet">stencil as a sheet</option>
					<option value="framed">stencil in a frame</option>
				</select>
				<select
					aria-label="Who fits the parts"
					className="border border-line bg-card px-1 py-0.5"
					value={fitting}
					onChange={(event) => setFitting(event.target.value as typeof fitting)}
				>
					<option value="hand">fitted by hand</option>
					<option value="house">fitted by the house</option>
				</select>
			</div>
			{query.error && <p className="text-stop">{query.error.message}</p>}
			<div className="flex flex-wrap gap-6">
				<table className="min-w-[420px] flex-1" data-testid="landed">
					<thead>
						<tr className="text-left text-[12px] text-ink-2">
							<th className="font-normal">per order</th>
							{rows.map((row, index) => (
								<th key={row.house} className="text-right font-normal" style={{ color: inkOf(index) }}>
									{row.house_name}
								</th>
							))}
						</tr>
					</thead>
					<tbody>
						{titles(rows).map((title) => (
							<tr key={title} className="border-b border-rule">
								<td className="py-0.5 text-ink-2">{title}</td>
								{rows.map((row) => {
									const line = row.landed.workings.find((w) => w.title === title);
									return (
										<td key={row.house} className="text-right">
											{line ? <Figure working={line} unit={false} /> : <span className="text-ink-2">none</span>}
										</td>
									);
								})}
							</tr>
						))}
						<tr className="border-t border-ink font-medium">
							<td>in all</td>
							{rows.map((row) => (
								<td key={row.house} className="figure text-right" data-total={row.house}>
									{least(row)}
									{money(row.landed.total_cents)}
								</td>
							))}
						</tr>
						<tr>
							<td className="text-ink-2">each</td>
							{rows.map((row) => (
								<td key={row.house} className="figure text-right">
									{least(row)}
									{money(row.landed.each_cents)}
								</td>
							))}
						</tr>
					</tbody>
				</table>
				<Curve rows={rows} quantity={quantity} />
			</div>
			{about && <Lacking row={about} />}
			{rows
				.filter((row) => row.house === head.choices.house && row.options.length > 0)
				.map((row) => (
					<Options key={row.house} row={row} />
				))}
			{rows.map((row) => {
				const cheaper = row.curve.find((point) => point.quantity === quantity)?.cheaper;
				return cheaper ? (
					<p key={row.house} className="mt-1 flex items-center gap-1.5 text-[12px]">
						<Sign kind="look" size={12} /> At {row.house_name} <span className="figure">{cheaper}</span> devices cost no
						more in all than {quantity}.
					</p>
				) : null;
			})}
		</section>
	);
}

/** What has no price, and what nobody has in that number: without it the sum is the least that they cost. */
function Lacking({ row }: { row: Landed }) {
	const { unpriced, short, old } = row.landed;
	return (
		<ul className="mt-1 text-[12px]" data-testid="lacking">
			{unpriced.length > 0 && (
				<li className="flex items-start gap-1.5">
					<Sign kind="look" size={12} />
					No price is known of {unpriced.join(", ")}: the sums are the least that the devices cost.
				</li>
			)}
			{short.length > 0 && (
				<li className="flex items-start gap-1.5">
					<Sign kind="look" size={12} />
					Nobody has enough now of {short.join(", ")}; the calendar counts the days until they come.
				</li>
			)}
			{old.length > 0 && (
				<li className="flex items-start gap-1.5">
					<Sign kind="look" size={12} />
					The prices of {old.join(", ")} were seen more than 90 days ago: read in a new list before you order.
				</li>
			)}
		</ul>
	);
}

const least = (row: Landed) => (row.landed.unpriced.length > 0 ? "at least " : "");

/** What every other option of the chosen house would change in all. */
function Options({ row }: { row: Landed }) {
	const sorts = [...new Set(row.options.map((option) => option.sort))];
	return (
		<div className="mt-3 text-[12px]" data-testid="options">
			<h3 className="text-[13px] font-semibold">What another option changes in all, at {row.house_name}</h3>
			<dl className="mt-1 flex flex-wrap gap-x-8 gap-y-1">
				{sorts.map((sort) => (
					<div key={sort}>
						<dt className="text-ink-2">{sort}</dt>
						{row.options
							.filter((option) => option.sort === sort)
							.map((option) => (
								<dd key={option.words} className="flex justify-between gap-3">
									{option.words}
									<span className="figure">
										{option.cents > 0 ? "+" : "−"}
										{money(Math.abs(option.cents))}
									</span>
								</dd>
							))}
					</div>
				))}
			</dl>
		</div>
	);
}

const titles = (rows: readonly Landed[]) => [
	...new Set(rows.flatMap((row) => row.landed.workings.map((w) => w.title))),
];
const money = (cents: number) => `${(cents / 100).toFixed(2)} €`;

/** Each device's cost over the quantity, on a scale that doubles evenly. */
function Curve({ rows, quantity }: { rows: readonly Landed[]; quantity: number }) {
	const points = rows.flatMap((row) => row.curve);
	if (!points.length) return null;
	const most = Math.max(...points.map((p) => p.each_cents));
	const [first, last] = [
		Math.log(Math.min(...points.map((p) => p.quantity))),
		Math.log(Math.max(...points.map((p) => p.quantity))),
	];
	const x = (n: number) => ((Math.log(n) - first) / (last - first || 1)) * WIDE;
	const y = (cents: number) => HIGH - (cents / most) * HIGH;
	return (
		<svg
			viewBox={`-54 -12 ${WIDE + 70} ${HIGH + 36}`}
			className="w-[460px] max-w-full"
			role="img"
			aria-label="Cost of each device over the quantity"
			data-testid="curve"
		>
			{[0, 0.5, 1].map((share) => (
				<g key={share}>
					<line x1={0} x2={WIDE} y1={y(share * most)} y2={y(share * most)} stroke="var(--color-rule)" />
					<text
						x={-6}
						y={y(share * most) + 4}
						textAnchor="end"
						fontSize={12}
						className="figure"
						fill="var(--color-ink-2)"
					>
						{((share * most) / 100).toFixed(0)} €
					</text>
				</g>
			))}
			{[5, 10, 20, 50, 100, 200, 500, 1000].map((n) => (
				<text
					key={n}
					x={x(n)}
					y={HIGH + 18}
					textAnchor="middle"
					fontSize={12}
					className="figure"
					fill="var(--color-ink-2)"
				>
					{n}
				</text>
			))}
			<line x1={x(quantity)} x2={x(quantity)} y1={0} y2={HIGH} stroke="var(--color-ink)" strokeDasharray="3 3" />
			{rows.map((row, index) => (
				<path
					key={row.house}
					d={row.curve
						.map((p, i) => `${i ? "L" : "M"}${x(p.quantity).toFixed(1)} ${y(p.each_cents).toFixed(1)}`)
						.join("")}
					fill="none"
					stroke={inkOf(index)}
					strokeWidth={2}
					strokeDasharray={dashOf(index)}
				>
					<title>{row.house_name}</title>
				</path>
			))}
		</svg>
	);
}
