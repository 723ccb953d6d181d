import { useEffect, useRef } from "react";
import { useDesign } from "../../document/useDesign";
import { asText, asThings, shiftTo } from "./clipboard";

type Spot = { x: number; y: number };

/** Copy, cut and paste of things with the keys of the system, into any project; copies come where the pointer is, and are picked. */
export function useClipboard(
	picked: string[],
	select: (names: string[]) => void,
	board: string,
	spot: () => Spot | null,
) {
	const { head, edit } = useDesign();
	const before = useRef<Set<string> | null>(null);
	const now = { picked, board, spot, head, edit };
	const latest = useRef(now);
	latest.current = now;

	useEffect(() => {
		const former = before.current;
		if (!former) return;
		before.current = null;
		const fresh = head.things.filter((thing) => !former.has(thing.name)).map((thing) => thing.name);
		if (fresh.length) select(fresh);
	}, [head.things, select]);

	useEffect(() => {
		const typing = () => /^(INPUT|SELECT|TEXTAREA)$/.test(document.activeElement?.tagName ?? "");
		const take = (event: ClipboardEvent) => {
			const { picked, head, edit } = latest.current;
			if (typing() || !picked.length || !event.clipboardData) return;
			event.preventDefault();
			const things = (head.brief.things ?? []).filter((thing) => picked.includes(thing.name));
			event.clipboardData.setData("text/plain", asText(things));
			if (event.type === "cut") void edit({ kind: "remove-things", names: picked });
		};
		const give = async (event: ClipboardEvent) => {
			const { head, edit, board, spot } = latest.current;
			const things = typing() ? null : asThings(event.clipboardData?.getData("text/plain") ?? "");
			if (!things) return;
			event.preventDefault();
			before.current = new Set(head.things.map((thing) => thing.name));
			if (!(await edit({ kind: "paste-things", things, board, ...shiftTo(things, spot()) }))) before.current = null;
		};
		const paste = (event: ClipboardEvent) => void give(event);
		document.addEventListener("copy", take);
		document.addEventListener("cut", take);
		document.addEventListener("paste", paste);
		return () => {
			document.removeEventListener("copy", take);
			document.removeEventListener("cut", take);
			document.removeEventListener("paste", paste);
		};
	}, []);
}
