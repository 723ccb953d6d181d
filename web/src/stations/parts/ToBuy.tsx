import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Sign } from "../../design/Sign";
import { useDesign } from "../../document/useDesign";
import { type KitLine, type Line, priceOf } from "./drawers";
import { Slip } from "./Slip";

/** What is still to buy for all devices: the parts with their spares and what two suppliers ask for them, and what of the kit is missing. */
export function ToBuy({ lines, kit }: { lines: Line[]; kit: KitLine[] }) {
	const { head } = useDesign();
	const missing = kit.filter((line) => line.state === "missing");
	const { cents, unknown } = priceOf(lines);
	const offers = useQuery({
		queryKey: ["project", head.project, "offers", head.version],
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/offers", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const own = offers.data?.some((row) => row.offers.some((offer) => offer.order_number)) ?? false;
	const by = new Map(offers.data?.map((row) => [row.line, row]));
	return (
		<div className="min-h-0 flex-1 overflow-y-auto p-4" data-testid="to-buy">
			<p className="mb-3">
				<span className="figure">{lines.length}</span> <span className="text-ink-2">parts for about</span>{" "}
				<span className="figure">{(cents / 100).toFixed(2)} €</span>{" "}
				<span className="text-ink-2">
					with spares{unknown ? `, and ${unknown} whose price is not known` : ""};{" "}
					{own ? "by one's own price lists where they sell it, else simulated" : "prices and suppliers are simulated"}.{" "}
				</span>
				<span className="figure">{missing.length}</span> <span className="text-ink-2">of the kit are missing.</span>
			</p>
			<Lists />
			<ol className="grid grid-cols-[repeat(auto-fill,minmax(360px,1fr))] gap-x-6">
				{lines.map((line) => (
					<Slip
						key={line.line}
						line={line.line}
						count={line.to_buy}
						what={[line.what, line.what.includes(line.value) ? "" : line.value].filter(Boolean).join(", ")}
						more={`${line.size}; ${line.count} a device, ${line.spares} to spare`}
						bought={line.bought ?? null}
						offers={by.get(line.line)}
					/>
				))}
				{missing.map((line) => (
					<Slip
						key={line.what}
						line={line.what}
						count={line.count}
						what={line.what}
						more={line.why}
						bought={line.bought ?? null}
					/>
				))}
			</ol>
		</div>
	);
}

type Read = Schemas["ReadLine"];

/** The list as a file, and a list of somebody else's read line by line: what could be misread is said; nothing is kept of it. */
function Lists() {
	const { head } = useDesign();
	const [read, setRead] = useState<{ name: string; lines: Read[] } | null>(null);
	const [problem, setProblem] = useState("");
	const open = async (file: File | undefined) => {
		if (!file) return;
		try {
			const text = await file.text();
			const lines = await take(client.POST("/api/parts-lists", { body: { text } }));
			setProblem("");
			setRead({ name: file.name, lines });
		} catch (failure) {
			setRead(null);
			setProblem(failure instanceof Refusal ? `${failure.sentence} ${failure.wayOut}` : String(failure));
		}
	};
	const wrong = read?.lines.filter((line) => line.findings.length > 0) ?? [];
	return (
		<section aria-label="Lists" className="mb-4 border border-line bg-card p-3 text-[12px]">
			<div className="flex flex-wrap items-center gap-4">
				{!head.stale.includes("circuit") && (
					<a className="text-patina underline" href={`/api/projects/${head.project}/parts-list`} download>
						Save what is to buy for the boards (CSV)
					</a>
				)}
				<label className="flex items-center gap-2">
					<span>Look through a list of yours</span>
					<input
						type="file"
						accept=".csv,text/csv"
						data-testid="parts-list"
						onChange={(event) => {
							const input = event.target;
							// Emptied afterwards, so that the same file can be read again once it was mended.
							void open(input.files?.[0]).then(() => {
								input.value = "";
							});
						}}
					/>
				</label>
			</div>
			{problem && (
				<p className="mt-2 text-stop" data-testid="list-problem">
					{problem}
				</p>
			)}
			{read && (
				<div className="mt-2" data-testid="read-list">
					<p>
						{read.name}: <span className="figure">{read.lines.length}</span> lines,{" "}
						<span className="figure">{wrong.length}</span> to look at.
					</p>
					<ul>
						{wrong.map((line) => (
							<li key={line.line} className="flex gap-2 border-t border-rule py-1">
								<span className="mt-[3px]">
									<Sign kind="look" size={11} />
								</span>
								<span className="figure w-[64px] shrink-0 text-ink-2">line {line.line}</span>
								<span>
									<span className="font-medium">{[line.what, line.value, line.size].filter(Boolean).join(", ")}</span>{" "}
									{line.findings.join(" ")}
								</span>
							</li>
						))}
					</ul>
				</div>
			)}
		</section>
	);
}
