import type { Edit } from "../../api/client";
import type { Board } from "../../canvas/board";
import { cut, laid, type Track, viasOf } from "../../canvas/wiring";
import { Button } from "../../design/Button";

const WIDTHS_MM = [0.15, 0.2, 0.3, 0.5, 0.8, 1.2];

type Props = {
	board: Board;
	net: string;
	track: Track | null;
	edit: (edit: Edit) => Promise<boolean>;
	/** Routes this net alone; null while something else is under way. */
	route: (() => void) | null;
	tidy: () => void;
};

/** What can be done with a picked net: route it alone, tidy it, give it another width, keep its tracks, give them back to the router, cut the picked one. */
export function NetActions({ board, net, track, edit, route, tidy }: Props) {
	const tracks = board.tracks.filter((t) => t.net === net);
	const vias = viasOf(board, net);
	const widths = [...new Set(tracks.map((t) => t.w))];
	const byHand = tracks.filter((t) => t.by_hand).length;
	const long = tracks.reduce((sum, t) => sum + Math.hypot(t.x2 - t.x1, t.y2 - t.y1), 0);
	return (
		<span className="flex flex-wrap items-center gap-x-2 gap-y-1 whitespace-nowrap" data-testid="picked-net">
			<span className="figure">net {net}</span>
			<span className="text-ink-2">
				{long.toFixed(1)} mm{byHand ? `, ${byHand} of ${tracks.length} by hand` : ""}
			</span>
			{net !== "GROUND" && (
				<Button
					className="!py-0"
					title="All other nets stay as they lie"
					disabled={!route}
					onClick={() => route?.()}
					data-testid="route-net"
				>
					{board.links.some((link) => link.net === net) ? "Finish it" : "Route it anew"}
				</Button>
			)}
			{byHand < tracks.length && (
				<Button
					className="!py-0"
					title="The router leaves them as they lie"
					onClick={() => void edit({ kind: "keep-nets", board: board.board, nets: [net] })}
				>
					Keep as it lies
				</Button>
			)}
			{byHand > 0 && (
				<Button className="!py-0" onClick={() => void edit({ kind: "release-nets", board: board.board, nets: [net] })}>
					Let it be routed
				</Button>
			)}
			{tracks.length > 0 && (
				<label className="flex items-center gap-1">
					<span className="text-ink-2">width</span>
					<select
						className="border border-line bg-card px-1"
						value={widths.length === 1 ? widths[0] : ""}
						onChange={(event) => {
							const w = Number(event.target.value);
							void edit(
								laid(
									board.board,
									net,
									tracks.map((t) => ({ ...t, w })),
									vias,
								),
							);
						}}
						data-testid="width"
					>
						{widths.length !== 1 && <option value="">mixed</option>}
						{[...new Set([...WIDTHS_MM, ...widths])]
							.sort((a, b) => a - b)
							.map((w) => (
								<option key={w} value={w}>
									{w.toFixed(2)} mm
								</option>
							))}
					</select>
				</label>
			)}
			{tracks.length > 1 && net !== "GROUND" && (
				<Button
					className="!py-0"
					title="Ends in the open are taken out and ways pulled straight; nothing is routed anew"
					onClick={tidy}
					data-testid="tidy"
				>
					Tidy
				</Button>
			)}
			{track?.net === net && (
				<Button className="!py-0" onClick={() => void edit(cut(board.board, track))} data-testid="cut">
					Cut this track
				</Button>
			)}
		</span>
	);
}
