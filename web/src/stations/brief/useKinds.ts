import { useQuery } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import type { Kind } from "./kinds";

/** All kinds of things with their fields, as the server tells them. */
export function useKinds(): Kind[] {
	const query = useQuery({ queryKey: ["kinds"], queryFn: () => take(client.GET("/api/kinds")), staleTime: Infinity });
	return query.data ?? [];
}
