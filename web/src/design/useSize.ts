import { type RefObject, useEffect, useState } from "react";

/** The size of an element in pixels, as it changes. */
export function useSize(element: RefObject<HTMLElement | null>): { w: number; h: number } {
	const [size, setSize] = useState({ w: 500, h: 400 });
	useEffect(() => {
		const node = element.current;
		if (!node) return;
		const watch = new ResizeObserver(() => setSize({ w: node.clientWidth - 16, h: node.clientHeight - 16 }));
		watch.observe(node);
		return () => watch.disconnect();
	}, [element]);
	return size;
}
