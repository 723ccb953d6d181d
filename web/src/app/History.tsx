import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, take } from "../api/client";
import { Button } from "../design/Button";
import { useDesign } from "../document/useDesign";
import { BoardDifferences } from "./BoardDifferences";

/** Every version with the edit that made it; one is compared with what is shown, and gone back to. */
export function History({ open, close }: { open: boolean; close: () => void }) {
	const { head, goBack } = useDesign();
	const queries = useQueryClient();
	const navigate = useNavigate();
	const [picked, setPicked] = useState<number | null>(null);
	const params = { path: { project_id: head.project } };
	const versions = useQuery({
		queryKey: ["project", head.project, "versions", head.version],
		queryFn: () => take(client.GET("/api/projects/{project_id}/versions", { params })),
		enabled: open,
	});
	const copy = async () => {
		const made = await take(client.POST("/api/projects/{project_id}/copy", { params }));
		await queries.invalidateQueries({ queryKey: ["projects"] });
		close();
		navigate(`/project/${made.project}/brief`);
	};
	return (
		<Dialog open={open} onClose={close} className="relative z-40">
			<div className="fixed inset-0 bg-ink/30" aria-hidden="true" />
			<div className="fixed inset-y-0 right-0 flex">
				<DialogPanel className="flex w-[460px] flex-col border-l border-line bg-card" data-testid="history">
					<div className="flex items-center gap-2 border-b border-rule px-4 py-2">
						<DialogTitle className="flex-1 text-[16px] font-semibold">History</DialogTitle>
						<Button onClick={() => void copy()} data-testid="copy-project">
							Copy the project
						</Button>
						<a
							className="rounded-[3px] border border-line bg-card px-2.5 py-1 font-medium"
							href={`/api/projects/${head.project}/brief.json`}
						>
							Save the brief
						</a>
						<Button weight="quiet" onClick={close}>
							Close
						</Button>
					</div>
					<ul className="min-h-0 flex-1 overflow-y-auto">
						{(versions.data ?? []).map((version) => (
							<li key={version.id} className="border-b border-rule" data-version={version.label}>
								<button
									type="button"
									aria-expanded={picked === version.id}
									className="flex w-full items-baseline gap-3 px-4 py-2 text-left hover:bg-paper"
									onClick={() => setPicked(picked === version.id ? null : version.id)}
								>
									<span className="flex-1">{version.label}</span>
									<span className="figure text-[12px] text-ink-2">
										{version.shown ? "shown now" : when(version.made_at)}
									</span>
								</button>
								{picked === version.id && !version.shown && (
									<Differences
										version={version.id}
										back={() => void goBack(version.id).then((done) => done && setPicked(null))}
									/>
								)}
							</li>
						))}
					</ul>
				</DialogPanel>
			</div>
		</Dialog>
	);
}

function Differences({ version, back }: { version: number; back: () => void }) {
	const { head } = useDesign();
	const changes = useQuery({
		queryKey: ["project", head.project, "changes", version, head.version],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/versions/{version_id}/changes", {
					params: { path: { project_id: head.project, version_id: version } },
				}),
			),
	});
	const rows = changes.data ?? [];
	return (
		<div className="bg-paper px-4 py-2 text-[13px]" data-testid="changes">
			<p className="text-ink-2">
				{changes.isLoading
					? "Comparing."
					: rows.length
						? "From that version to the one shown:"
						: "Its brief is the same as the one shown; only what was made of it differs."}
			</p>
			<ul className="my-1">
				{rows.map((row) => (
					<li key={`${row.what}${row.about}${row.how}`}>
						<span className="inline-block w-[64px] text-ink-2">{row.what}</span>
						<span className="font-medium">{row.about}</span> {row.how}
					</li>
				))}
			</ul>
			{head.boards.map((board) => (
				<BoardDifferences key={board.name} version={version} board={board} />
			))}
			<Button onClick={back} data-testid="go-back">
				Go back to it
			</Button>
		</div>
	);
}

const when = (time: string) => time.replace("T", " ").slice(0, 16);
