import { useEffect, useState } from "react";
import { useDesign } from "./useDesign";

/** State of a station that is still there when a person comes back to it: kept for this project in this window. */
export function useKept<T>(name: string, first: T): [T, (value: T) => void] {
	const key = `${useDesign().head.project} ${name}`;
	const [value, setValue] = useState<T>(() => {
		const kept = sessionStorage.getItem(key);
		return kept === null ? first : (JSON.parse(kept) as T);
	});
	useEffect(() => sessionStorage.setItem(key, JSON.stringify(value)), [key, value]);
	return [value, setValue];
}
