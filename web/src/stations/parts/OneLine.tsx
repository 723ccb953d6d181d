import { keyOf, Stamp } from "./Compartments";
import { type Line, scaleOf, TRUE_PX } from "./drawers";
import { PartPicture } from "./PartPicture";

const RULER_MM = 50;

/** A line as a purchaser needs it: all its words, its pins by number, and how we know them; under it a ruler at true size. */
export function OneLine({ line, quantity }: { line: Line; quantity: number }) {
	const { part } = scaleOf(line);
	const grow = part > 1 ? 1.4 : 2.6;
	return (
		<section
			aria-label="Picked part"
			className="min-h-0 flex-1 overflow-y-auto p-4"
			data-testid="picked-line"
			data-key={keyOf(line)}
		>
			<h2 className="font-semibold">{line.what}</h2>
			{line.value && <p className="figure">{line.value}</p>}
			<p className="text-[12px] text-ink-2">{line.size}</p>
			<div className="my-3 flex justify-center overflow-x-auto bg-paper py-3">
				<PartPicture line={line} grow={grow} numbers />
			</div>
			<Ruler grow={grow / part} />
			{line.pins.length > 0 && (
				<table className="mt-3 w-full text-[12px]">
					<caption className="text-left text-ink-2">pins, from above</caption>
					<tbody>
						{line.pins.map(([number, name]) => (
							<tr key={number} className="border-b border-rule">
								<td className="figure w-[34px] py-0.5">{number}</td>
								<td className="py-0.5">{name}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<div className="mt-3 flex">
				<Stamp line={line} />
			</div>
			<p className="mt-1 text-[12px] text-ink-2">{line.evidence}</p>
			{line.trial && (
				<p className="mt-2 border-t border-rule pt-2 text-[12px]">
					<span className="text-ink-2">Before it is soldered:</span> {line.trial}
				</p>
			)}
			<dl className="mt-3 grid grid-cols-[1fr_auto] gap-y-1 border-t border-rule pt-2">
				<Row name="on a device" value={`${line.count}`} />
				<Row name={`for ${quantity} devices`} value={`${line.count * quantity}`} />
				<Row name="spares" value={`${line.spares}`} />
				<Row name="to buy" value={`${line.to_buy}`} />
				<Row
					name="price each"
					value={line.price_cents === null ? "not known" : `${(line.price_cents / 100).toFixed(3)} €`}
				/>
				<Row name="height" value={`${line.height_mm.toFixed(2)} mm`} />
				<Row name="fitted by" value={line.by_hand ? "hand" : "house or hand"} />
			</dl>
			<p className="figure mt-2 text-[12px] break-words text-ink-2">{line.refs.join(" ")}</p>
		</section>
	);
}

function Row({ name, value }: { name: string; value: string }) {
	return (
		<>
			<dt className="text-ink-2">{name}</dt>
			<dd className="figure text-right">{value}</dd>
		</>
	);
}

function Ruler({ grow }: { grow: number }) {
	const px = TRUE_PX * grow;
	const length = Math.max(5, Math.floor((RULER_MM * TRUE_PX) / px / 5) * 5);
	return (
		<svg
			width={length * px + 30}
			height={24}
			role="img"
			aria-label={`A ruler of ${length} mm in the scale of the picture`}
		>
			<line x1={1} x2={length * px + 1} y1={4} y2={4} stroke="var(--color-ink)" />
			{Array.from({ length: length + 1 }, (_, index) => index).map((mm) => (
				<line
					key={mm}
					x1={mm * px + 1}
					x2={mm * px + 1}
					y1={4}
					y2={mm % 5 ? 8 : 12}
					stroke="var(--color-ink)"
					strokeWidth={0.8}
				/>
			))}
			<text x={length * px - 6} y={22} fontSize={11} className="figure" fill="var(--color-ink-2)">
				{length} mm
			</text>
		</svg>
	);
}
