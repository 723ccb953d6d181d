import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { client, type Schemas, take } from "../../api/client";
import { useCanvas } from "../../canvas/useCanvas";
import { fitView, toScreen, tracePad, type Viewport } from "../../canvas/viewport";

type Layer = Schemas["LayerView"];

const COLOURS: [string, string][] = [
	["copper", "#B25A24"],
	["mask", "#3d5c49"],
	["legend", "#4A3F63"],
	["paste", "#6d6a66"],
	["holes", "#23211D"],
	["profile", "#23211D"],
];

/** One layer as it will be made, drawn from the bytes of its file. */
export function LayerCanvas({
	release,
	file,
	board,
}: {
	release: number;
	file: string;
	board: Schemas["BoardOutline"] | undefined;
}) {
	const query = useQuery({
		queryKey: ["layer", release, file],
		queryFn: () =>
			take(client.GET("/api/releases/{release_id}/layers/{file}", { params: { path: { release_id: release, file } } })),
		staleTime: Number.POSITIVE_INFINITY,
	});
	const whole = useQuery({
		queryKey: ["layer", release, file, "panel"],
		queryFn: () =>
			take(
				client.GET("/api/releases/{release_id}/layers/{file}", {
					params: { path: { release_id: release, file: file.replace(/[^/]+$/, "profile.gbr") } },
				}),
			),
		staleTime: Number.POSITIVE_INFINITY,
		enabled: file.split("/").at(-2) === "panel",
	});
	const mirrored = file.includes("-far");
	const layer = query.data;
	const panel = whole.data;
	const paint = useCallback(
		(ctx: CanvasRenderingContext2D, w: number, h: number) => {
			if (!board) return;
			const ends = panel ? panel.strokes.map(([, , x, y]) => [x, y] as const) : board.outline_mm;
			const view = fitView(Math.max(...ends.map((p) => p[0])), Math.max(...ends.map((p) => p[1])), w, h, mirrored, 14);
			ctx.clearRect(0, 0, w, h);
			if (panel) paintLayer(ctx, view, panel, "#8a857a");
			else outline(ctx, view, [board.outline_mm, ...board.openings_mm]);
			if (layer) paintLayer(ctx, view, layer, COLOURS.find(([name]) => file.includes(`/${name}`))?.[1] ?? "#23211D");
		},
		[layer, panel, board, mirrored, file],
	);
	const { ref } = useCanvas(paint);
	return (
		<div className="relative min-w-0 flex-1">
			<canvas
				ref={ref}
				className="h-[calc(100%-24px)] w-full"
				role="img"
				aria-label={`${file}, read back`}
				data-testid="layer-canvas"
				data-objects={layer ? layer.flashes.length + layer.strokes.length : 0}
			/>
			<p className="absolute right-3 bottom-0.5 px-1 text-[12px] text-ink-2">
				{file}, read back; seen from {mirrored ? "behind" : "the front"}
			</p>
		</div>
	);
}

function outline(ctx: CanvasRenderingContext2D, view: Viewport, rings: [number, number][][]): void {
	ctx.beginPath();
	for (const points of rings) trace(ctx, view, points);
	ctx.fillStyle = view.mirrored ? "#DDDCCB" : "#E9DFC4";
	ctx.fill("evenodd");
	ctx.strokeStyle = "#23211D";
	ctx.lineWidth = 1;
	ctx.stroke();
}

function trace(ctx: CanvasRenderingContext2D, view: Viewport, points: [number, number][]): void {
	points.forEach(([x, y], index) => {
		const p = toScreen(view, { x, y });
		if (index) ctx.lineTo(p.x, p.y);
		else ctx.moveTo(p.x, p.y);
	});
	ctx.closePath();
}

function paintLayer(ctx: CanvasRenderingContext2D, view: Viewport, layer: Layer, colour: string): void {
	ctx.fillStyle = colour;
	ctx.strokeStyle = colour;
	ctx.lineCap = "round";
	if (layer.regions.length) {
		ctx.globalAlpha = 0.5;
		ctx.beginPath();
		for (const [, ring] of layer.regions) trace(ctx, view, ring);
		ctx.fill("evenodd");
		ctx.globalAlpha = 1;
	}
	for (const [x1, y1, x2, y2, w] of layer.strokes) {
		const [a, b] = [toScreen(view, { x: x1, y: y1 }), toScreen(view, { x: x2, y: y2 })];
		ctx.lineWidth = Math.max(0.7, w * view.scale);
		ctx.beginPath();
		ctx.moveTo(a.x, a.y);
		ctx.lineTo(b.x, b.y);
		ctx.stroke();
	}
	for (const arc of layer.arcs) paintArc(ctx, view, arc);
	for (const [shape, x, y, w, h, turn] of layer.flashes) {
		tracePad(ctx, view, { shape, x, y, w, h, turn });
		ctx.fill();
	}
}

/** An arc of an outline, the shorter way round. */
function paintArc(
	ctx: CanvasRenderingContext2D,
	view: Viewport,
	[x1, y1, x2, y2, cx, cy]: Layer["arcs"][number],
): void {
	const [a, b, c] = [
		toScreen(view, { x: x1, y: y1 }),
		toScreen(view, { x: x2, y: y2 }),
		toScreen(view, { x: cx, y: cy }),
	];
	const [from, to] = [Math.atan2(a.y - c.y, a.x - c.x), Math.atan2(b.y - c.y, b.x - c.x)];
	const turn = Math.atan2(Math.sin(to - from), Math.cos(to - from));
	ctx.lineWidth = 0.7;
	ctx.beginPath();
	ctx.arc(c.x, c.y, Math.hypot(a.x - c.x, a.y - c.y), from, to, turn < 0);
	ctx.stroke();
}
