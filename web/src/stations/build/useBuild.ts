import { useQuery } from "@tanstack/react-query";
import { client, type Schemas, take } from "../../api/client";
import { useDesign } from "../../document/useDesign";

export type Build = Schemas["BuildView"];
export type Unit = Schemas["UnitView"];
export type Probe = Schemas["ProbeView"];
export type Step = Schemas["Step"];

/** How a board is built, as the design stands. */
export function useBuild(board: string, way: "hand" | "plate", paste: string, enabled: boolean) {
	const { head } = useDesign();
	return useQuery({
		queryKey: ["project", head.project, "build", head.version, board, way, paste],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/build", {
					params: { path: { project_id: head.project }, query: { board, way, paste } },
				}),
			),
		placeholderData: (before) => before,
		enabled,
		retry: false,
	});
}

/** Asks something of the server that changes a unit. */
export type Post = <T>(work: () => Promise<T>) => void;
