import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refusal } from "../api/client";

/** Asking something of the server that changes a unit or the log: what it refuses is said. */
export function useAsking(key: readonly unknown[]) {
	const queries = useQueryClient();
	const [problem, setProblem] = useState("");
	const [busy, setBusy] = useState(false);
	const ask = async <T>(work: () => Promise<T>): Promise<T | null> => {
		setBusy(true);
		try {
			const found = await work();
			setProblem("");
			await queries.invalidateQueries({ queryKey: key });
			return found;
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			setProblem(error.message);
			return null;
		} finally {
			setBusy(false);
		}
	};
	return { ask, problem, busy };
}
