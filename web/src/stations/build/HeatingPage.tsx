import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { HeatCurve } from "./HeatCurve";
import type { Build } from "./useBuild";

type Recorded = Schemas["CurveView"];

/** The profile for the paste, and a recorded curve held against its limits. */
export function HeatingPage({ build }: { build: Build }) {
	const [recorded, setRecorded] = useState<Recorded | null>(null);
	const { ask, problem } = useAsking(["heating"]);
	const read = async (file: File | undefined) => {
		if (!file) return;
		const csv = await file.text();
		const found = await ask(() => take(client.POST("/api/reflow", { body: { paste: build.paste.id, csv } })));
		setRecorded(found);
	};
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
			<HeatCurve limits={build.paste} profile={build.profile} recorded={recorded?.points} />
			<p className="text-[12px] text-ink-2">
				°C over seconds. Green: a profile inside the limits of {build.paste.name} (
				{build.paste.source || "no source is named"}); a profile of the paste's own maker comes first, and goes on the
				shelf as a paste of one's own.
			</p>
			<label className="mt-3 inline-block">
				<span className="mr-2">Hold a recorded curve against it (CSV of any logger: seconds, °C)</span>
				<input
					type="file"
					accept=".csv,.txt"
					data-testid="curve-file"
					onChange={(event) => void read(event.target.files?.[0])}
				/>
			</label>
			{problem && <p className="mt-2 text-stop">{problem}</p>}
			{recorded && (
				<table className="mt-3" data-testid="checks">
					<tbody>
						{recorded.checks.map((check) => (
							<tr key={check.words} className="border-b border-rule">
								<td className="py-1 pr-2">
									<Sign kind={check.kept ? "clear" : "stop"} size={12} />
								</td>
								<td className="pr-6">{check.words}</td>
								<td className="figure pr-6 text-right">{check.found}</td>
								<td className="text-ink-2">{check.asked}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<p className="mt-4 text-[12px]">
				Plates and hot air burn, fumes irritate: draw them off, let the board cool before it is touched.
			</p>
		</div>
	);
}
