import { useQuery } from "@tanstack/react-query";
import { client, type JobCard, type Schemas, take } from "../../api/client";
import type { Board } from "../../canvas/board";

/** The board as the router has laid it so far, while a job draws one; else the board itself. */
export function useLaid(board: Board | undefined, jobs: JobCard[]): Board | undefined {
	const job = jobs.find((j) => j.pictures > 0);
	const { data } = useQuery({
		queryKey: ["laid", job?.id, job?.pictures],
		enabled: job !== undefined,
		queryFn: () => take(client.GET("/api/jobs/{job_id}/picture", { params: { path: { job_id: job?.id ?? 0 } } })),
		placeholderData: (before) => before,
		gcTime: 0,
	});
	return board && job && data?.board === board.board && data.tracks.length ? withLaid(board, data) : board;
}

/** The board with other tracks and vias, and nothing poured. */
export const withLaid = (board: Board, laid: Schemas["Laid"]): Board => ({
	...board,
	pieces: [],
	links: [],
	tracks: laid.tracks.map(([far, x1, y1, x2, y2, w]) => ({
		net: "",
		far: far === 1,
		x1,
		y1,
		x2,
		y2,
		w,
		by_hand: false,
	})),
	vias: laid.vias.map(([x, y]) => ({ net: "", x, y, stitch: false, by_hand: false })),
});
