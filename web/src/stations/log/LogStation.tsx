import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { client, type Schemas, take } from "../../api/client";
import { BoardDifferences } from "../../app/BoardDifferences";
import { Button } from "../../design/Button";
import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import { useAsking } from "../../document/useAsking";
import { useDesign } from "../../document/useDesign";
import { Checks } from "./Checks";
import { NewCard } from "./NewCard";

type Log = Schemas["LogView"];
type Card = Schemas["CardView"];

/** What went wrong, how it was mended, what the next revision must change. */
export function LogStation() {
	const { head } = useDesign();
	const key = ["project", head.project, "log", head.version, head.stops];
	const query = useQuery({
		queryKey: key,
		queryFn: () =>
			take(client.GET("/api/projects/{project_id}/log", { params: { path: { project_id: head.project } } })),
		placeholderData: (before) => before,
	});
	const log = query.data;
	if (!log) return <p className="p-6 text-ink-2">{query.error?.message ?? "Opening the log."}</p>;
	return (
		<div className="flex min-h-0 flex-1">
			<div className="min-h-0 min-w-0 flex-1 overflow-y-auto px-4 py-3">
				<Cards log={log} />
				<NewCard />
				<Checks checks={log.checks} />
				<Decisions log={log} />
			</div>
			<Revisions log={log} />
		</div>
	);
}

function Cards({ log }: { log: Log }) {
	const columns = [
		["open", "Open", "blocks the next release"],
		["fixed", "Fixed", "in the revision named"],
		["waived", "Waived", "with a reason"],
	] as const;
	return (
		<div className="grid grid-cols-3 gap-3" data-testid="cards">
			{columns.map(([state, title, about]) => {
				const cards = log.cards.filter((card) => card.state === state);
				return (
					<section key={state} aria-label={title}>
						<h2 className="border-b border-ink pb-1 font-semibold">
							{title} <span className="figure font-normal text-ink-2">{cards.length}</span>
							<span className="block text-[12px] font-normal text-ink-2">{about}</span>
						</h2>
						{cards.map((card) => (
							<CardSlip key={card.id} card={card} />
						))}
						{cards.length === 0 && <p className="py-2 text-[12px] text-ink-2">None.</p>}
					</section>
				);
			})}
		</div>
	);
}

function CardSlip({ card }: { card: Card }) {
	const { head } = useDesign();
	const { ask, problem } = useAsking(["project", head.project]);
	const [reason, setReason] = useState<string | null>(null);
	const change = (state: "open" | "fixed" | "waived", why = "") =>
		void ask(() =>
			take(
				client.POST("/api/projects/{project_id}/cards/{card_id}", {
					params: { path: { project_id: head.project, card_id: card.id } },
					body: { state, reason: why },
				}),
			),
		).then((done) => done && setReason(null));
	return (
		<article className="mt-2 border border-rule bg-card p-2" data-card={card.title} data-state={card.state}>
			<p className="font-medium">{card.title}</p>
			<p className="text-[12px] text-ink-2">
				revision {card.revision}
				{card.about && `, ${card.about}`}
				{card.sort && `, ${card.sort}`}
			</p>
			{card.found_how && <p className="mt-1 text-[12px]">Found: {card.found_how}</p>}
			{card.patch && <p className="mt-1 text-[12px]">Patch: {card.patch}</p>}
			{card.fixed_in && <p className="mt-1 text-[12px]">Fixed in revision {card.fixed_in}</p>}
			{card.reason && <p className="mt-1 text-[12px]">May stay: {card.reason}</p>}
			{(card.minutes > 0 || card.cents > 0) && (
				<p className="figure mt-1 text-[12px] text-ink-2">
					{(card.minutes / 60).toFixed(1)} h, {(card.cents / 100).toFixed(2)} €
				</p>
			)}
			{problem && <p className="mt-1 text-[12px] text-stop">{problem}</p>}
			<div className="mt-2 flex flex-wrap gap-1.5">
				{card.state === "open" ? (
					<>
						<Button onClick={() => change("fixed")} data-testid="fixed">
							Fixed in {head.revision}
						</Button>
						<Button weight="quiet" onClick={() => setReason("")}>
							Waive
						</Button>
					</>
				) : (
					<Button weight="quiet" onClick={() => change("open")}>
						Open it again
					</Button>
				)}
			</div>
			{reason != null && (
				<form
					className="mt-1 flex gap-1.5"
					onSubmit={(event) => {
						event.preventDefault();
						change("waived", reason);
					}}
				>
					<input
						aria-label="Why it may stay"
						placeholder="why it may stay"
						className="min-w-0 flex-1 border border-line bg-paper px-1"
						value={reason}
						onChange={(event) => setReason(event.target.value)}
					/>
					<Button type="submit">Waive</Button>
				</form>
			)}
		</article>
	);
}

function Decisions({ log }: { log: Log }) {
	return (
		<section aria-label="Decisions" className="mt-5">
			<h2 className="border-b border-ink pb-1 font-semibold">Decisions of this revision</h2>
			<ul className="text-[12px]">
				{log.decisions.slice(0, 40).map((row, index) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: decisions are only added
					<li key={log.decisions.length - index} className="flex gap-3 border-b border-rule py-1">
						<span className="flex-1">{row.words}</span>
						<span className="figure text-ink-2">
							{row.author}, {row.at.slice(0, 16).replace("T", " ")}
						</span>
					</li>
				))}
			</ul>
			{log.decisions.length === 0 && <p className="py-2 text-[12px] text-ink-2">Nothing has been decided yet.</p>}
		</section>
	);
}

function Revisions({ log }: { log: Log }) {
	const { head } = useDesign();
	const { ask, problem } = useAsking(["project", head.project]);
	const [compared, setCompared] = useState<string | null>(null);
	const params = { path: { project_id: head.project } };
	const navigate = useNavigate();
	const open = async (letter: string) => {
		const path = { project_id: head.project, letter };
		const made = await ask(() =>
			take(client.POST("/api/projects/{project_id}/revisions/{letter}/copy", { params: { path } })),
		);
		if (made) navigate(`/project/${made.project}/board`);
	};
	return (
		<section aria-label="Revisions" className="w-[290px] shrink-0 overflow-y-auto border-l border-rule px-3 py-3">
			<h2 className="border-b border-ink pb-1 font-semibold">Revisions</h2>
			<ul data-testid="revisions">
				{log.revisions.map((row) => (
					<li key={row.id} className="border-b border-rule py-1.5" data-revision={row.letter}>
						<span className="flex items-baseline gap-2">
							<span className="text-[16px] font-semibold">{row.letter}</span>
							<span className="flex-1 text-[12px] text-ink-2">
								{row.versions} {row.versions === 1 ? "version" : "versions"}
								{row.open_cards > 0 && `, ${row.open_cards} open`}
							</span>
							<Figure working={row.hours} />
							<Figure working={row.money} unit={false} />
						</span>
						{row.letter !== head.revision && (
							<Button
								weight="quiet"
								data-testid="compare"
								onClick={() => setCompared(compared === row.letter ? null : row.letter)}
							>
								{compared === row.letter ? "Close the comparison" : `Compare ${row.letter} with ${head.revision}`}
							</Button>
						)}
						{row.letter !== head.revision && row.version != null && (
							<Button
								weight="quiet"
								data-testid="open-revision"
								title="A project of its own with all that this revision has; the one that is open stays as it is"
								onClick={() => void open(row.letter)}
							>
								Open {row.letter} beside it
							</Button>
						)}
						{compared === row.letter && row.version != null && <Compared letter={row.letter} version={row.version} />}
					</li>
				))}
			</ul>
			{log.todo.length > 0 && (
				<>
					<h3 className="mt-3 text-[12px] text-ink-2">To do in this revision</h3>
					<ul className="text-[12px]" data-testid="todo">
						{log.todo.map((words) => (
							<li key={words} className="flex gap-2 py-0.5">
								<Sign kind="stop" size={11} /> {words}
							</li>
						))}
					</ul>
				</>
			)}
			<Button
				className="mt-3"
				onClick={() => void ask(() => take(client.POST("/api/projects/{project_id}/revisions", { params })))}
				data-testid="new-revision"
			>
				Begin revision {String.fromCharCode(head.revision.charCodeAt(0) + 1)}
			</Button>
			{problem && <p className="mt-1 text-stop">{problem}</p>}
			<Spent log={log} />
			{log.lessons.length > 0 && (
				<>
					<h2 className="mt-5 border-b border-ink pb-1 font-semibold">What comes again</h2>
					{log.lessons.map((row) => (
						<p key={row.sort} className="border-b border-rule py-1 text-[12px]">
							<span className="font-medium">{row.sort}</span>: {row.cards} in {row.projects}{" "}
							{row.projects === 1 ? "project" : "projects"}
							<span className="block text-ink-2">{row.lesson}</span>
						</p>
					))}
				</>
			)}
			<h2 className="mt-5 border-b border-ink pb-1 font-semibold">Take it along</h2>
			<p className="mt-1 text-[12px] text-ink-2">
				The whole project as one file for another machine: designs, history, releases, orders, tests.
			</p>
			<a
				className="mt-1 inline-block border border-line bg-card px-2.5 py-1 font-medium"
				href={`/api/projects/${head.project}/project.zip`}
				data-testid="project-file"
			>
				Save the project
			</a>
			<Button className="mt-1 ml-2" onClick={() => window.print()}>
				Print
			</Button>
		</section>
	);
}

function Compared({ letter, version }: { letter: string; version: number }) {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "revision changes", letter, head.version],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/revisions/{letter}/changes", {
					params: { path: { project_id: head.project, letter } },
				}),
			),
	});
	return (
		<div className="text-[12px]" data-testid="compared">
			{(query.data ?? []).map((row) => (
				<p key={`${row.about} ${row.how}`} className="border-t border-rule py-0.5">
					{row.about}: {row.how}
				</p>
			))}
			{query.data?.length === 0 && <p className="text-ink-2">The briefs are the same.</p>}
			{head.boards.map((board) => (
				<BoardDifferences key={board.name} version={version} board={board} />
			))}
		</div>
	);
}

function Spent({ log }: { log: Log }) {
	const { head } = useDesign();
	const { ask, problem } = useAsking(["project", head.project]);
	const [words, setWords] = useState("");
	const [hours, setHours] = useState("");
	const [money, setMoney] = useState("");
	const number = (text: string) => Math.max(0, Number(text.replace(",", ".")) || 0);
	return (
		<>
			<h2 className="mt-5 border-b border-ink pb-1 font-semibold">Hours and money</h2>
			{log.hours.map((row) => (
				<p
					key={`${row.words} ${row.minutes} ${row.cents} ${row.day}`}
					className="flex justify-between border-b border-rule py-0.5 text-[12px]"
				>
					<span>{row.words}</span>
					<span className="figure text-ink-2">
						{(row.minutes / 60).toFixed(1)} h, {(row.cents / 100).toFixed(2)} €
					</span>
				</p>
			))}
			<form
				className="mt-2 flex flex-wrap gap-1.5 text-[12px]"
				onSubmit={(event) => {
					event.preventDefault();
					void ask(() =>
						take(
							client.POST("/api/projects/{project_id}/hours", {
								params: { path: { project_id: head.project } },
								body: { words, minutes: Math.round(60 * number(hours)), cents: Math.round(100 * number(money)) },
							}),
						),
					).then((done) => {
						if (done) setWords("");
					});
				}}
			>
				<input
					aria-label="What was done"
					placeholder="what was done"
					className="w-full border border-line bg-card px-1 py-0.5"
					value={words}
					onChange={(event) => setWords(event.target.value)}
				/>
				<input
					aria-label="Hours"
					placeholder="h"
					inputMode="decimal"
					className="figure w-[52px] border border-line bg-card px-1 text-right"
					value={hours}
					onChange={(event) => setHours(event.target.value)}
				/>
				<input
					aria-label="Money in euro"
					placeholder="€"
					inputMode="decimal"
					className="figure w-[64px] border border-line bg-card px-1 text-right"
					value={money}
					onChange={(event) => setMoney(event.target.value)}
				/>
				<Button type="submit" disabled={words.length < 2}>
					Note it
				</Button>
			</form>
			{problem && <p className="text-[12px] text-stop">{problem}</p>}
		</>
	);
}
