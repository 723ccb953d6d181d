import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { client, take } from "../../api/client";
import { useShown } from "../../app/reckoner";
import { useDesign } from "../../document/useDesign";
import { useKept } from "../../document/useKept";

/** The state in which a person looks at the device: nothing while it is off, the empty text while it stands as usual. A finding in the tray may ask for one. */
export function useSwitchedOn() {
	const { head } = useDesign();
	const { shown } = useShown();
	const [state, set] = useKept<string | null>("switched on", null);
	const asked = shown?.state;
	// biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each press in the tray
	useEffect(() => {
		if (asked) set(asked);
	}, [shown]);
	const query = useQuery({
		queryKey: ["project", head.project, "on", head.version, state],
		queryFn: () =>
			take(
				client.GET("/api/projects/{project_id}/on", {
					params: { path: { project_id: head.project }, query: { state: state ?? "" } },
				}),
			),
		enabled: state !== null && !head.stale.includes("circuit"),
		placeholderData: keepPreviousData,
	});
	return { state, set, on: query.data ?? null, error: query.error?.message ?? "" };
}
