import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { Bench } from "./Bench";
import { HousesPage } from "./HousesPage";
import { PackPanel } from "./PackPanel";
import { PastesPage } from "./PastesPage";
import { SuppliersPage } from "./SuppliersPage";
import { SHELF, type ShelfRow } from "./typed";

const PAGES = [
	["parts", "Parts"],
	["houses", "Board houses"],
	["suppliers", "Suppliers"],
	["pastes", "Pastes"],
] as const;

/** The shelf: drawers by what parts are for, the parts of one drawer, and one part on the bench. */
export function ShelfPage() {
	const query = useQuery({ queryKey: SHELF, queryFn: () => take(client.GET("/api/shelf")) });
	const [where, go] = useSearchParams();
	const [words, setWords] = useState("");
	const [packs, setPacks] = useState(false);
	useEffect(() => {
		document.title = "Shelf, Loquet";
	}, []);
	if (query.error) return <p className="p-6 text-stop">{query.error.message}</p>;
	if (!query.data) return <p className="p-6 text-ink-2">Opening the shelf.</p>;
	const { roles, parts } = query.data;
	const page = where.get("page") ?? "parts";
	const kind = where.get("kind") ?? "linear regulator";
	const asked = words.trim().toLowerCase();
	const shown = parts.filter((row) =>
		asked
			? `${row.id} ${row.kind} ${row.description}`.toLowerCase().includes(asked)
			: kind === "own"
				? row.version > 0
				: row.kind === kind,
	);
	const own = parts.filter((row) => row.version > 0);
	const picked = where.get("part") ?? shown[0]?.id ?? "";
	const pick = (part: string, drawer = kind) => go({ kind: drawer, ...(part ? { part } : {}) });
	return (
		<main className="flex h-full flex-col px-6 pt-5">
			<header className="flex items-end gap-3 border-b-2 border-ink pb-3">
				<div>
					<h1 className="text-[28px] leading-tight font-semibold">Shelf</h1>
					<p className="text-ink-2">
						<Link to="/" className="text-patina underline">
							Workshop
						</Link>
						: what ships with Loquet, and one's own
					</p>
				</div>
				<nav aria-label="What lies on the shelf" className="ml-4 flex gap-1">
					{PAGES.map(([name, words]) => (
						<button
							key={name}
							type="button"
							aria-pressed={page === name}
							data-page={name}
							className={`rounded-[3px] px-2.5 py-1 font-medium ${page === name ? "bg-ink text-paper" : "hover:bg-card"}`}
							onClick={() => go(name === "parts" ? {} : { page: name })}
						>
							{words}
						</button>
					))}
				</nav>
				<span className="flex-1" />
				{page === "parts" && (
					<input
						type="search"
						aria-label="Search parts"
						placeholder="name, kind or what it is"
						className="w-[230px] border border-line bg-card px-2 py-1"
						value={words}
						onChange={(event) => setWords(event.target.value)}
					/>
				)}
				<Button aria-pressed={packs} onClick={() => setPacks(!packs)}>
					Packs
				</Button>
			</header>
			{packs && <PackPanel own={own.length} done={() => setPacks(false)} />}
			{page === "houses" && <HousesPage />}
			{page === "suppliers" && <SuppliersPage />}
			{page === "pastes" && <PastesPage />}
			{page === "parts" && (
				<div className="flex min-h-0 flex-1">
					<Drawers roles={roles} own={own.length} kind={kind} open={(name) => pick("", name)} />
					<Rows rows={shown} picked={picked} pick={(row) => pick(row.id, asked ? row.kind : kind)} />
					<Bench
						key={picked || kind}
						id={picked}
						drawer={roles.find((role) => role.name === kind)}
						roles={roles}
						taken={parts.map((row) => row.id)}
						kept={(part) => pick(part.id, part.kind)}
						gone={() => pick("")}
					/>
				</div>
			)}
		</main>
	);
}

function Drawers({
	roles,
	own,
	kind,
	open,
}: {
	roles: Schemas["RoleView"][];
	own: number;
	kind: string;
	open: (name: string) => void;
}) {
	const rows = [
		["own", "of one's own", own] as const,
		...roles.map((role) => [role.name, role.name, role.count] as const),
	];
	return (
		<nav aria-label="Drawers" className="w-[200px] shrink-0 overflow-y-auto border-r border-rule py-3 pr-2">
			{rows.map(([name, title, count]) => (
				<button
					key={name}
					type="button"
					aria-pressed={kind === name}
					data-kind={name}
					className={`flex w-full items-baseline justify-between rounded-[3px] px-2 py-0.5 text-left ${kind === name ? "bg-ink text-paper" : "hover:bg-card"} ${name === "own" ? "mb-2 font-semibold" : ""}`}
					onClick={() => open(name)}
				>
					{title} <span className={`figure text-[12px] ${kind === name ? "" : "text-ink-2"}`}>{count}</span>
				</button>
			))}
		</nav>
	);
}

function Rows({ rows, picked, pick }: { rows: ShelfRow[]; picked: string; pick: (row: ShelfRow) => void }) {
	if (rows.length === 0)
		return (
			<p className="w-[262px] shrink-0 border-r border-rule p-4 text-ink-2">
				Nothing lies here yet. Begin with a data sheet, take "Like this one, but" in another drawer, or read in a pack.
			</p>
		);
	return (
		<ul aria-label="Parts of the drawer" className="w-[262px] shrink-0 overflow-y-auto border-r border-rule p-3">
			{rows.slice(0, 120).map((row) => (
				<li key={row.id}>
					<button
						type="button"
						aria-pressed={picked === row.id}
						data-part={row.id}
						className={`mb-1.5 w-full border px-2 py-1.5 text-left ${picked === row.id ? "border-copper bg-card" : "border-line hover:border-ink-2"}`}
						onClick={() => pick(row)}
					>
						<span className="block leading-tight">{row.description || "not named yet"}</span>
						<span className="mt-0.5 flex items-center gap-2 text-[12px] text-ink-2">
							<span className="truncate">{row.id}</span>
							<span className="flex-1" />
							{row.lacks.length > 0 && (
								<span className="flex items-center gap-1" title={row.lacks.map((lack) => lack.words).join(", ")}>
									<Sign kind={row.lacks.some((lack) => !lack.serves) ? "stop" : "look"} size={11} />
									{row.lacks.length}
								</span>
							)}
							<span className="figure">{(row.price_cents / 100).toFixed(2)} €</span>
						</span>
					</button>
				</li>
			))}
			{rows.length > 120 && <li className="text-[12px] text-ink-2">and {rows.length - 120} more; search for them.</li>}
		</ul>
	);
}
