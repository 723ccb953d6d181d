import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../api/client";
import { enclosed } from "../canvas/areas";
import { useDesign } from "../document/useDesign";

type Found = Schemas["BoardDifferences"];
const INK = {
	came: "var(--color-patina)",
	went: "var(--color-stop)",
	moved: "var(--color-copper)",
	changed: "var(--color-legend)",
};
const MOST_ROWS = 40;

/** What differs on a board between a version and the one that is shown: a picture, and the same in words. */
export function BoardDifferences({ version, board }: { version: number; board: Schemas["BoardOutline"] }) {
	const { head } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "board changes", version, board.name, head.version],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/versions/{version_id}/board", {
					params: { path: { project_id: head.project, version_id: version }, query: { board: board.name } },
				}),
			),
	});
	const found = query.data;
	const poured = [
		...(found?.areas ?? []).map((a) => ({
			what: a.what,
			about: a.net,
			how: `poured area of ${enclosed(a.ring).toFixed(0)} mm² on the ${a.far ? "far" : "near"} side`,
		})),
		...(found?.tear_drops ? [{ what: found.tear_drops, about: "Tear-drops", how: "at drilled lands" }] : []),
	];
	if (!found || !(found.parts?.length || found.tracks?.length || found.nets?.length || poured.length)) return null;
	const rows = [
		...(found.parts ?? []).map((p) => ({ what: p.what, about: p.ref, how: p.how })),
		...(found.nets ?? []).map((n) => ({
			what:
				n.track_was === 0 && n.vias_was === 0
					? ("came" as const)
					: n.track_now === 0 && n.vias_now === 0
						? ("went" as const)
						: ("changed" as const),
			about: n.net,
			how: `track ${n.track_was.toFixed(1)} to ${n.track_now.toFixed(1)} mm, vias ${n.vias_was} to ${n.vias_now}`,
		})),
		...poured,
	];
	return (
		<div data-testid="board-changes" className="my-2">
			<p className="text-ink-2">On the board{head.boards.length > 1 ? ` ${board.name}` : ""}, near side in front:</p>
			<Picture found={found} board={board} />
			<ul className="my-1">
				{rows.slice(0, MOST_ROWS).map((row) => (
					<li key={`${row.what}${row.about}${row.how}`}>
						<span className="inline-block w-[64px]" style={{ color: INK[row.what] }}>
							{row.what}
						</span>
						<span className="font-medium">{row.about}</span> {row.how}
					</li>
				))}
			</ul>
			{rows.length > MOST_ROWS && <p className="text-ink-2">And {rows.length - MOST_ROWS} more.</p>}
		</div>
	);
}

/** What went dashed in red, what came in green, what moved as an arrow from where it was. */
function Picture({ found, board }: { found: Found; board: Schemas["BoardOutline"] }) {
	const w = Math.max(...board.outline_mm.map((p) => p[0]));
	const h = Math.max(...board.outline_mm.map((p) => p[1]));
	const px = Math.max(w / 400, h / 260);
	return (
		<svg
			role="img"
			aria-label="What differs on the board"
			viewBox={`${-4 * px} ${-4 * px} ${w + 8 * px} ${h + 8 * px}`}
			className="my-1 max-h-[280px] w-full"
		>
			<path
				d={`M${board.outline_mm.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
				strokeWidth={px}
			/>
			{(found.areas ?? []).map((a) => (
				<path
					key={`${a.what}${a.net}${a.ring.join(" ")}`}
					d={`M${a.ring.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
					fill="none"
					stroke={INK[a.what]}
					strokeWidth={1.6 * px}
					strokeDasharray={a.what === "went" ? `${3 * px} ${2.5 * px}` : undefined}
				/>
			))}
			{(found.tracks ?? []).map((t) => (
				<line
					key={`${t.what}${t.net}${t.far}${t.x1},${t.y1},${t.x2},${t.y2}`}
					x1={t.x1}
					y1={h - t.y1}
					x2={t.x2}
					y2={h - t.y2}
					stroke={INK[t.what]}
					strokeWidth={1.6 * px}
					strokeDasharray={t.what === "went" ? `${3 * px} ${2.5 * px}` : undefined}
				/>
			))}
			{(found.parts ?? []).map((p) => (
				<g key={`${p.what}${p.role}`} stroke={INK[p.what]} strokeWidth={1.6 * px} fill="none">
					{p.was && p.now && <line x1={p.was[0]} y1={h - p.was[1]} x2={p.now[0]} y2={h - p.now[1]} />}
					{p.was && <circle cx={p.was[0]} cy={h - p.was[1]} r={4 * px} strokeDasharray={`${2 * px} ${2 * px}`} />}
					{p.now && <circle cx={p.now[0]} cy={h - p.now[1]} r={4 * px} fill="var(--color-card)" />}
					{(p.now ?? p.was) && (
						<text
							x={(p.now ?? p.was)?.[0]}
							y={h - ((p.now ?? p.was)?.[1] ?? 0) - 6 * px}
							fontSize={11 * px}
							textAnchor="middle"
							fill="var(--color-ink)"
							stroke="none"
						>
							{p.ref}
						</text>
					)}
				</g>
			))}
		</svg>
	);
}
