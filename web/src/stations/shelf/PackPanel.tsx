import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Refusal, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { SHELF } from "./typed";

type Read = { text: string; file: string; rows: Schemas["PackRow"][] };
const HERE: Record<string, string> = {
	new: "new here",
	same: "here as it is",
	changed: "differs from what is here",
	taken: "taken",
};

/** Packs: the workshop's own parts as a file, and a file read in with a look at each difference. */
export function PackPanel({ own, done }: { own: number; done: () => void }) {
	const queries = useQueryClient();
	const [read, setRead] = useState<Read | null>(null);
	const [chosen, setChosen] = useState<string[]>([]);
	const [problem, setProblem] = useState("");
	const send = async (text: string, file: string, wanted: string[]) => {
		try {
			const rows = await take(client.POST("/api/shelf/pack", { body: { text, file, take: wanted } }));
			setProblem("");
			setRead({ text, file, rows });
			setChosen(
				wanted.length ? [] : rows.length > 20 ? [] : rows.filter((row) => row.here !== "same").map((row) => row.id),
			);
			if (wanted.length) await queries.invalidateQueries({ queryKey: SHELF });
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setRead(null);
			setProblem([error.sentence, error.wayOut].filter(Boolean).join("\n"));
		}
	};
	return (
		<section aria-label="Packs" className="border-b border-rule bg-card px-3 py-3">
			<div className="flex items-center gap-4">
				<label className="cursor-pointer border border-line bg-paper px-2.5 py-1 font-medium focus-within:outline-2 hover:border-ink-2">
					Read in a pack
					<input
						type="file"
						accept=".toml"
						className="sr-only"
						data-testid="read-pack"
						onChange={(event) => {
							const file = event.target.files?.[0];
							if (file) void file.text().then((text) => send(text, file.name, []));
							event.target.value = "";
						}}
					/>
				</label>
				<Button
					data-testid="registered"
					onClick={() =>
						void fetch("/api/shelf/registered.toml")
							.then((answer) => answer.text())
							.then((text) => send(text, "registered-types.toml", []))
					}
				>
					Registered types, from memory
				</Button>
				<a className="text-patina underline" href="/api/shelf/pack.toml" download>
					Give out one's own shelf as a pack ({own} parts)
				</a>
				<span className="flex-1" />
				<Button weight="quiet" onClick={done}>
					Close
				</Button>
			</div>
			{problem && (
				<p role="alert" className="mt-2 whitespace-pre-line text-stop">
					{problem}
				</p>
			)}
			{read && (
				<>
					<div className="mt-3 max-h-[300px] overflow-y-auto">
						<table className="w-full" data-testid="pack-rows">
							<tbody>
								{read.rows.map((row) => (
									<tr key={row.id} className="border-t border-rule align-top [&>td]:py-1">
										<td className="w-[28px]">
											<input
												type="checkbox"
												aria-label={`Take ${row.id}`}
												checked={chosen.includes(row.id)}
												disabled={row.here === "same" || row.here === "taken"}
												onChange={() =>
													setChosen(
														chosen.includes(row.id) ? chosen.filter((id) => id !== row.id) : [...chosen, row.id],
													)
												}
											/>
										</td>
										<td className="pr-4">
											{row.description} <span className="text-[12px] text-ink-2">{row.id}</span>
										</td>
										<td className="pr-4">{row.kind}</td>
										<td className="w-[190px]">{HERE[row.here] ?? row.here}</td>
										<td className="text-[12px]">
											{row.changed.slice(0, 6).map((change) => (
												<div key={change.field}>
													{change.field}: <s className="text-ink-2">{change.before}</s> {change.after}
												</div>
											))}
										</td>
									</tr>
								))}
							</tbody>
						</table>
					</div>
					<Button
						weight="main"
						className="mt-2"
						disabled={chosen.length === 0}
						onClick={() => void send(read.text, read.file, chosen)}
					>
						Take {chosen.length} on the shelf
					</Button>
				</>
			)}
		</section>
	);
}
