import type { Edit } from "../../api/client";
import type { Board } from "../../canvas/boardGeometry";
import { cut, type Track } from "../../canvas/wiring";
import { Button } from "../../design/Button";

type Props = {
	board: Board;
	net: string;
	track: Track | null;
	edit: (edit: Edit) => Promise<boolean>;
	/** Routes this net alone; null while something else is under way. */
	route: (() => void) | null;
};

/** What can be done with a picked net: route it alone, keep its tracks, give them back to the router, cut the picked one. */
export function NetActions({ board, net, track, edit, route }: Props) {
	const tracks = board.tracks.filter((t) => t.net === net);
	const byHand = tracks.filter((t) => t.by_hand).length;
	const long = tracks.reduce((sum, t) => sum + Math.hypot(t.x2 - t.x1, t.y2 - t.y1), 0);
	return (
		<span className="flex items-center gap-2 whitespace-nowrap" data-testid="picked-net">
			<span className="figure">net {net}</span>
			<span className="text-ink-2">
				{long.toFixed(1)} mm of track{byHand ? `, ${byHand} of ${tracks.length} pieces by hand` : ""}
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
			{track?.net === net && (
				<Button className="!py-0" onClick={() => void edit(cut(board.board, track))} data-testid="cut">
					Cut this track
				</Button>
			)}
		</span>
	);
}
