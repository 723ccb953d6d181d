import { type RefObject, useEffect, useLayoutEffect, useRef, useState } from "react";

/** A canvas that fills its box at the screen's own resolution; `paint` runs whenever it changes. */
export function useCanvas(paint: (ctx: CanvasRenderingContext2D, w: number, h: number) => void): {
	ref: RefObject<HTMLCanvasElement | null>;
	size: { w: number; h: number };
} {
	const ref = useRef<HTMLCanvasElement>(null);
	const [size, setSize] = useState({ w: 0, h: 0 });
	useEffect(() => {
		const canvas = ref.current;
		if (!canvas) return;
		const watch = new ResizeObserver(() => setSize({ w: canvas.clientWidth, h: canvas.clientHeight }));
		watch.observe(canvas);
		return () => watch.disconnect();
	}, []);
	useLayoutEffect(() => {
		const canvas = ref.current;
		const ctx = canvas?.getContext("2d");
		if (!canvas || !ctx || !size.w) return;
		const ratio = window.devicePixelRatio || 1;
		canvas.width = Math.round(size.w * ratio);
		canvas.height = Math.round(size.h * ratio);
		ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
		paint(ctx, size.w, size.h);
	}, [paint, size]);
	return { ref, size };
}
