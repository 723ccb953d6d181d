import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, type Schemas, take } from "../../api/client";
import { Coming } from "../../app/Coming";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { standing } from "../../document/standing";
import { useDesign } from "../../document/useDesign";
import { Calendar } from "./Calendar";
import { Carts } from "./Carts";
import { Costs } from "./Costs";
import { LayerCanvas } from "./LayerCanvas";
import { Orders } from "./Orders";
import { Panel } from "./Panel";
import { Quotes } from "./Quotes";

type Release = Schemas["ReleaseView"];
const COMING = [
	[
		"Files for a board house",
		"copper, mask, paste, legend, outline and holes of every board, with a netlist for the test",
	],
	["Lists and a drawing for assembly", "each part with its value, size, place and turn"],
	["Files for the firmware", "the pin map of every brain, and the report where the device has one"],
	["The proof", "every file read back and compared with the design, every key scanned on the finished nets"],
	["Quotes and the order", "from every house on the shelf"],
] as const;
const FIRST = "fabrication/copper-near.gbr";

/** Files written, proven, read back; quotes and orders. */
export function ReleaseStation() {
	const { head, start, jobs } = useDesign();
	const [picked, setFile] = useState("");
	const query = useQuery({
		queryKey: ["project", head.project, "release", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/release", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const release = query.data ?? null;
	const layers = layersOf(release);
	const file = layers.includes(picked) ? picked : (layers[0] ?? FIRST);
	const board = head.boards.find((b) => b.folder === folderOf(file)) ?? head.boards[0];
	const blocked = head.stops > 0 || head.todo > 0;
	const before = standing(head.stops, head.todo);
	return (
		<div className="flex min-h-0 flex-1 flex-col">
			<div className="flex items-center gap-3 border-b border-rule px-4 py-2">
				{query.isSuccess && <Verdict release={release} />}
				<span className="flex-1" />
				{release && (
					<a
						className="rounded-[3px] border border-line bg-card px-2.5 py-1 font-medium"
						href={`/api/releases/${release.id}/package.zip`}
						data-testid="download"
					>
						Download
					</a>
				)}
				<Button
					disabled={blocked || jobs.length > 0}
					title={blocked ? `${before} before an order` : ""}
					onClick={() => void start("release")}
					data-testid="prove"
				>
					Write and prove the files
				</Button>
			</div>
			<div className="min-h-0 flex-1 overflow-y-auto">
				{release && (
					<div className="flex h-[330px] border-b border-rule">
						<FileList release={release} file={file} pick={setFile} />
						<LayerCanvas release={release.id} file={file} board={board} />
					</div>
				)}
				<Panel />
				{release?.current && (
					<>
						<Quotes />
						<Costs />
						<Calendar />
					</>
				)}
				{release && !release.current && (
					<p className="px-4 py-3 text-look">
						The design has changed since these files were written. Write and prove them again to ask for quotes.
					</p>
				)}
				{release && <Carts />}
				{release && <Orders />}
				{query.isSuccess && !release && (
					<Coming title="The files of an order will lie here" until="pour">
						<div className="max-w-[420px] flex-1 text-ink-2">
							<p>
								{head.stops > 0
									? `${before} before an order; each is named at the right with what to do.`
									: head.todo > 0
										? head.next.sentence
										: "Writing them takes a few seconds."}
							</p>
							<ul className="mt-3 border-t border-rule">
								{COMING.map(([what, about]) => (
									<li key={what} className="border-b border-rule py-1.5">
										<span className="font-medium text-ink">{what}</span>
										<span className="block text-[12px]">{about}</span>
									</li>
								))}
							</ul>
						</div>
					</Coming>
				)}
				{query.error && <p className="px-4 py-3 text-stop">{query.error.message}</p>}
			</div>
		</div>
	);
}

function Verdict({ release }: { release: Release | null }) {
	if (!release) return <span className="text-ink-2">No files yet</span>;
	return (
		<span className="flex min-w-0 flex-wrap items-center gap-x-2" data-testid="proof">
			<Sign kind={release.current ? "clear" : "stale"} />
			{release.current ? "Proven:" : "Proven earlier:"}
			{release.proof.map((figure) => (
				<span key={figure.id} className="whitespace-nowrap">
					<Figure working={figure} />
				</span>
			))}
		</span>
	);
}

const NAMES: Record<string, string> = {
	"copper-near.gbr": "Copper, near side",
	"copper-inner-near.gbr": "Copper, ground plane",
	"copper-inner-far.gbr": "Copper, supply plane",
	"copper-far.gbr": "Copper, far side",
	"mask-near.gbr": "Mask openings, near",
	"mask-far.gbr": "Mask openings, far",
	"legend-near.gbr": "Legend, near",
	"legend-far.gbr": "Legend, far",
	"paste-near.gbr": "Paste, near",
	"paste-far.gbr": "Paste, far",
	"profile.gbr": "Outline",
	"holes-plated.drl": "Plated holes",
	"holes-unplated.drl": "Unplated holes",
	"score.gbr": "Score lines",
};

function FileList({ release, file, pick }: { release: Release; file: string; pick: (file: string) => void }) {
	const layers = layersOf(release);
	const drawn = layers.flatMap((path) => release.files.filter((f) => f.path === path));
	const others = release.files.filter((f) => !drawn.includes(f));
	const several = new Set(layers.map(folderOf)).size > 1;
	return (
		<div className="w-[230px] shrink-0 overflow-y-auto border-r border-rule py-2 text-[13px]">
			{drawn.map((row) => {
				const name = row.path.slice(row.path.lastIndexOf("/") + 1);
				return (
					<button
						key={row.path}
						type="button"
						data-layer={onPanel(row.path) ? `panel/${name}` : name}
						className={`flex w-full justify-between px-3 py-[3px] text-left ${file === row.path ? "bg-board" : "hover:bg-card"}`}
						onClick={() => pick(row.path)}
					>
						<span>
							{several && <span className="text-ink-2">{folderOf(row.path)} </span>}
							{onPanel(row.path) && <span className="text-ink-2">panel </span>}
							{NAMES[name]}
						</span>
						<span className="figure text-[12px] text-ink-2">{kilobytes(row.bytes)}</span>
					</button>
				);
			})}
			<p className="mt-2 border-t border-rule px-3 pt-2 text-[12px] text-ink-2">also in the package</p>
			{others.map((row) => (
				<p key={row.path} className="flex justify-between px-3 py-[2px] text-[12px]" title={`SHA-256 ${row.sha256}`}>
					<span>{row.path}</span>
					<span className="figure text-ink-2">{kilobytes(row.bytes)}</span>
				</p>
			))}
		</div>
	);
}

/** The folder of a board in the package of a device with several; empty where there is one. */
const folderOf = (path: string) => path.split("/").slice(0, -2).join("/");

/** Whether a file is one of a panel. */
const onPanel = (path: string) => path.split("/").at(-2) === "panel";

/** The layers of a package in the order of the names above, board by board. */
function layersOf(release: Release | null): string[] {
	const names = Object.keys(NAMES);
	const rank = (path: string) => {
		const [folder, name] = path.split("/").slice(-2);
		const at = names.indexOf(name ?? "");
		return at < 0 || (folder !== "fabrication" && folder !== "panel")
			? -1
			: at + (folder === "panel" ? names.length : 0);
	};
	return (release?.files ?? [])
		.map((f) => f.path)
		.filter((path) => rank(path) >= 0)
		.sort((a, b) => folderOf(a).localeCompare(folderOf(b)) || rank(a) - rank(b));
}

const kilobytes = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
