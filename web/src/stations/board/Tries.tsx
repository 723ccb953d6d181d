import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { Button } from "../../design/Button";
import { useDesign } from "../../document/useDesign";

type Tried = Schemas["TryCard"];

/** Arrangements of a board that were tried side by side, the best first; any of them can be taken. */
export function Tries({ board, outline }: { board: string; outline: [number, number][] }) {
	const { head, start, jobs, edit } = useDesign();
	const query = useQuery({
		queryKey: ["project", head.project, "tries", board, head.version],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/tries", {
					params: { path: { project_id: head.project }, query: { board } },
				}),
			),
		placeholderData: (before) => before,
	});
	const tries = query.data ?? [];
	const busy = jobs.length > 0;
	const choose = async (number: number) => {
		if (await edit({ kind: "choose-arrangement", board, number })) await start("everything");
	};
	return (
		<aside
			aria-label="Tries"
			data-testid="tries"
			className="flex w-[290px] flex-col gap-2 overflow-y-auto border-l border-rule bg-card p-3 text-[12px]"
		>
			<p className="text-ink-2">
				The same parts, arranged, routed and poured in four ways. What a hand has put or drawn stays in all of them. The
				best is taken: whole first, then the shortest, a via counted as 3 mm.
			</p>
			{tries.length === 0 && (
				<Button disabled={busy} onClick={() => void start("tries", { board })} data-testid="make-tries">
					Make four tries
				</Button>
			)}
			{tries.map((one, index) => (
				<article key={one.figures.number} className="border border-rule p-2" data-testid="try">
					<Picture tried={one} outline={outline} />
					<div className="mt-1 flex items-center gap-2">
						<span className="font-medium">Arrangement {one.figures.number}</span>
						<span className="flex-1" />
						{one.taken ? (
							<span className="text-patina">on the board</span>
						) : (
							<Button className="!py-0" disabled={busy} onClick={() => void choose(one.figures.number)}>
								Take it
							</Button>
						)}
					</div>
					<p className="figure text-ink-2">
						{words(one.figures)}
						{index === 0 && tries.length > 1 ? "; the best" : ""}
					</p>
				</article>
			))}
		</aside>
	);
}

/** `512.3 mm, 24 vias, 130 pieces`, and what is not whole. */
export function words(one: Schemas["Try"]): string {
	const faults = [
		one.open_links && `${one.open_links} open`,
		one.islands > 1 && `ground in ${one.islands}`,
		one.stops && `${one.stops} ${one.stops > 1 ? "stops" : "stop"}`,
	].filter(Boolean);
	return [`${one.length_mm.toFixed(0)} mm`, `${one.vias} vias`, `${one.pieces} pieces`, ...faults].join(", ");
}

function Picture({ tried, outline }: { tried: Tried; outline: [number, number][] }) {
	const { parts, tracks, vias } = tried.picture;
	const [w, h] = [Math.max(...outline.map((p) => p[0])), Math.max(...outline.map((p) => p[1]))];
	const px = Math.max(w / 260, h / 150);
	return (
		<svg
			role="img"
			aria-label={`Arrangement ${tried.figures.number}`}
			viewBox={`${-px} ${-px} ${w + 2 * px} ${h + 2 * px}`}
			className="max-h-[150px] w-full"
		>
			<path
				d={`M${outline.map(([x, y]) => `${x},${h - y}`).join("L")}Z`}
				fill="var(--color-board)"
				stroke="var(--color-ink)"
				strokeWidth={px}
			/>
			{tracks.map(([far, x1, y1, x2, y2]) => (
				<line
					key={`${far} ${x1} ${y1} ${x2} ${y2}`}
					x1={x1}
					y1={h - y1}
					x2={x2}
					y2={h - y2}
					stroke={far ? "var(--color-patina)" : "var(--color-copper)"}
					strokeWidth={px}
				/>
			))}
			{vias.map(([x, y]) => (
				<circle key={`${x} ${y}`} cx={x} cy={h - y} r={1.4 * px} fill="var(--color-ink)" />
			))}
			{parts.map(([far, left, bottom, right, top]) => (
				<rect
					key={`${left} ${bottom} ${right} ${top}`}
					x={left}
					y={h - top}
					width={right - left}
					height={top - bottom}
					fill="none"
					stroke="var(--color-ink)"
					strokeDasharray={far ? `${2 * px} ${2 * px}` : undefined}
					strokeWidth={0.8 * px}
				/>
			))}
		</svg>
	);
}
