import type { Schemas } from "../../api/client";
import { useDesign } from "../../document/useDesign";

type View = Schemas["PinsView"];

/** Every signal with its pin and its lock. */
export function SignalList({
	view,
	signal,
	pick,
}: {
	view: View;
	signal: string | null;
	pick: (signal: string | null) => void;
}) {
	const { edit } = useDesign();
	return (
		<table className="w-full text-left">
			<thead>
				<tr className="border-b border-rule text-[12px] text-ink-2">
					<th className="py-1 pl-3 font-normal">signal</th>
					<th className="py-1 text-right font-normal">pin</th>
					<th className="py-1 pr-3 pl-2 text-right font-normal">keep</th>
				</tr>
			</thead>
			<tbody>
				{view.signals.map((row) => (
					<tr
						key={row.signal}
						data-signal-row={row.signal}
						className={`border-b border-rule ${signal === row.signal ? "bg-board/60" : ""}`}
					>
						<td className="py-1 pl-3">
							<button
								type="button"
								className="text-left hover:underline"
								onClick={() => pick(signal === row.signal ? null : row.signal)}
							>
								{row.title}
							</button>
							{row.function && <span className="figure block text-[12px] text-ink-2">{row.function}</span>}
						</td>
						<td className="figure py-1 text-right align-top whitespace-nowrap">
							{row.pin ? (
								<>
									{row.port} <span className="text-ink-2">({row.pin})</span>
								</>
							) : (
								"none"
							)}
						</td>
						<td className="py-1 pr-3 text-right align-top">
							<input
								type="checkbox"
								className="accent-patina"
								aria-label={`Lock ${row.title}`}
								checked={row.locked}
								disabled={!row.pin && !row.locked}
								onChange={() =>
									void edit(
										row.locked
											? { kind: "release-pin", signal: row.signal }
											: { kind: "lock-pin", signal: row.signal, pin: row.pin },
									)
								}
							/>
						</td>
					</tr>
				))}
			</tbody>
		</table>
	);
}
