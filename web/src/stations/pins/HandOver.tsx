import { useQuery } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

const ABOUT: Record<string, string> = {
	"pins.h": "C header: every signal with port and bit, every key with its number and wiring",
	"pins.json": "the same map as data: signals, keys, fields of the report",
	"wiring-card.pdf": "for the breadboard stage: pin, wire colour, control; not to scale",
	"usb-report.h": "USB report descriptor as C, item by item, with the layout of the report",
	"usb-report.bin": "the same descriptor as bytes",
	"keys.dts": "device-tree overlay for a host that reads the keys with its own pins",
	"keys-overlay-not-written.txt": "why there is no overlay",
};

/** The files that come out of the one plan. */
export function HandOver({ solved }: { solved: boolean }) {
	const { head } = useDesign();
	const base = `/api/projects/${head.project}/handover`;
	const query = useQuery({
		queryKey: ["project", head.project, "handover", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/handover", { params: { path: { project_id: head.project } } })),
		enabled: solved,
	});
	if (!solved) return <p className="p-6 text-ink-2">Solve the pins first; the files follow from the plan.</p>;
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-3" data-testid="handover">
			<p className="mb-2 max-w-[640px] text-ink-2">
				All of these are written from the one plan: the order of keys in header, report and button test is the same
				table.
			</p>
			<table className="w-full max-w-[720px]">
				<tbody>
					{(query.data ?? []).map((file) => (
						<tr key={file.name} className="border-b border-rule">
							<td className="py-1.5 pr-4">
								<a
									className="figure text-patina underline"
									href={`${base}/${encodeURIComponent(file.name)}`}
									data-file={file.name}
								>
									{file.name}
								</a>
							</td>
							<td className="py-1.5 text-ink-2">{ABOUT[file.name] ?? ""}</td>
							<td className="figure py-1.5 text-right whitespace-nowrap">
								{file.bytes} <span className="text-ink-2">bytes</span>
							</td>
						</tr>
					))}
				</tbody>
			</table>
			<a
				className="mt-3 inline-block rounded-[3px] border border-copper bg-copper px-2.5 py-1 font-medium text-white"
				href={`${base}/handover.zip`}
				data-testid="handover-zip"
			>
				Download all of them
			</a>
		</div>
	);
}
