import { useState } from "react";
import { enclosed, netsToPour, rectangle } from "../../canvas/areas";
import type { Board, Side } from "../../canvas/board";
import type { Place } from "../../canvas/viewport";
import { Button } from "../../design/Button";
import { NumberField } from "../../design/NumberField";
import { Toggle } from "../../design/Toggle";
import { useDesign } from "../../document/useDesign";

type Props = {
	board: Board;
	side: Side;
	net: string;
	pickNet: (net: string) => void;
	drawing: boolean;
	draw: (on: boolean) => void;
	pour: (ring: Place[]) => void;
};

/** What is poured beside ground: areas of other nets in their order, drawn or typed, and tear-drops. */
export function PourPanel({ board, side, net, pickNet, drawing, draw, pour }: Props) {
	const { edit, start, jobs } = useDesign();
	const busy = jobs.length > 0;
	const again = async (made: Promise<boolean>) => {
		if (await made) await start("pour");
	};
	return (
		<aside
			aria-label="Pour"
			data-testid="pour-panel"
			className="flex w-[290px] flex-col gap-3 overflow-y-auto border-l border-rule bg-card p-3 text-[12px]"
		>
			<p className="text-ink-2">
				Ground fills both sides. An area of another net goes before it, with its gaps and heat relief; where two
				overlap, the upper one of the list has its way. Routing heeds areas the next time it runs.
			</p>
			<label className="grid grid-cols-[84px_1fr] items-center gap-x-2">
				<span className="text-ink-2">Net</span>
				<select
					className="border border-line bg-card px-1 py-0.5"
					value={net}
					onChange={(event) => pickNet(event.target.value)}
					data-testid="area-net"
				>
					{netsToPour(board).map((name) => (
						<option key={name}>{name}</option>
					))}
				</select>
			</label>
			<Toggle
				on={drawing}
				className="self-start"
				disabled={busy}
				onClick={() => draw(!drawing)}
				data-testid="draw-area"
			>
				Draw its line on the {side} side
			</Toggle>
			<Rectangle pour={pour} busy={busy} />
			{board.areas.length > 0 && (
				<ol className="divide-y divide-rule border-y border-rule" data-testid="areas">
					{board.areas.map((area, index) => (
						<li key={`${area.net} ${area.ring.join(" ")}`} className="flex items-center gap-1.5 py-1">
							<span className="min-w-0 flex-1">
								<span className="figure">{area.net}</span>
								<span className="block text-ink-2">
									{area.far ? "far" : "near"} side, {enclosed(area.ring).toFixed(0)} mm²
								</span>
							</span>
							{index > 0 && (
								<Button
									className="!px-1.5 !py-0"
									disabled={busy}
									title="It has its way before all others"
									onClick={() => void again(edit({ kind: "prefer-pour-area", board: board.board, index }))}
								>
									First
								</Button>
							)}
							<Button
								className="!px-1.5 !py-0"
								disabled={busy}
								aria-label={`Take out the area of ${area.net}`}
								onClick={() => void again(edit({ kind: "drop-pour-area", board: board.board, index }))}
							>
								Take out
							</Button>
						</li>
					))}
				</ol>
			)}
			<label className="flex items-start gap-2">
				<input
					type="checkbox"
					className="mt-0.5"
					disabled={busy}
					checked={board.tear_drops}
					onChange={(event) =>
						void again(edit({ kind: "set-tear-drops", board: board.board, wanted: event.target.checked }))
					}
					data-testid="tear-drops"
				/>
				<span>
					Tear-drops at drilled lands
					<span className="block text-ink-2">
						A drill that wanders does not cut a track off; they stand where there is room.
					</span>
				</span>
			</label>
		</aside>
	);
}

/** An area by its lower left corner and its size. */
function Rectangle({ pour, busy }: { pour: (ring: Place[]) => void; busy: boolean }) {
	const [x, setX] = useState<number | null>(10);
	const [y, setY] = useState<number | null>(10);
	const [wide, setWide] = useState<number | null>(10);
	const [high, setHigh] = useState<number | null>(10);
	return (
		<details>
			<summary className="cursor-pointer text-patina">or type a rectangle</summary>
			<div className="mt-1.5 grid gap-1.5">
				<NumberField label="From the left" unit="mm" value={x} set={setX} />
				<NumberField label="From below" unit="mm" value={y} set={setY} />
				<NumberField label="Width" unit="mm" value={wide} set={setWide} />
				<NumberField label="Height" unit="mm" value={high} set={setHigh} />
				<Button
					className="justify-self-start"
					disabled={busy}
					onClick={() => pour(rectangle(x ?? 0, y ?? 0, wide ?? 0, high ?? 0))}
					data-testid="pour-rectangle"
				>
					Pour it
				</Button>
			</div>
		</details>
	);
}
