import type { SizedThing } from "../../api/client";

const NAMED = ["button", "pad", "stick", "trigger", "encoder", "slider", "touch"];

/** One thing of the brief as the front view draws it, about its own middle. */
export function ThingDrawing({ thing, k, selected }: { thing: SizedThing; k: number; selected: boolean }) {
	const { w_mm: w, h_mm: h } = thing;
	const edge = selected ? "var(--color-patina)" : "var(--color-ink)";
	const line = { stroke: edge, strokeWidth: selected ? 0.5 : 0.22 };
	const textSize = 1.9 * k;
	const small = Math.min(1.9 * k, Math.max(1.3, w / (thing.name.length * 0.62)));
	return (
		<>
			<rect
				className="ring opacity-0"
				x={-w / 2 - 0.8}
				y={-h / 2 - 0.8}
				width={w + 1.6}
				height={h + 1.6}
				fill="none"
				stroke="var(--color-patina)"
				strokeWidth={0.4}
			/>
			<Body thing={thing} line={line} />
			{NAMED.includes(thing.kind) && (
				<text
					y={thing.kind === "slider" ? 1.4 : h / 2 + textSize + 0.2}
					fontSize={textSize}
					textAnchor="middle"
					fill="var(--color-ink)"
				>
					{thing.kind === "pad" ? thing.name.split(" ").at(-1) : thing.name}
				</text>
			)}
			{(thing.kind === "glass" || thing.kind === "buzzer") && (
				<text y={0.7} fontSize={small} textAnchor="middle" fill="var(--color-ink-2)">
					{thing.name}
				</text>
			)}
			{thing.kind === "cell" && (
				<text y={0.5} textAnchor="middle" fontSize={1.6 * k} fill="#6b6556">
					{thing.name.startsWith("cell") ? `AAA ${thing.name}` : thing.name}, far side
				</text>
			)}
		</>
	);
}

function Body({ thing, line }: { thing: SizedThing; line: { stroke: string; strokeWidth: number } }) {
	const { w_mm: w, h_mm: h } = thing;
	const box = { x: -w / 2, y: -h / 2, width: w, height: h };
	switch (thing.kind) {
		case "button":
			return (
				<>
					<rect {...box} rx={0.8} fill="var(--color-card)" {...line} />
					<circle r={Math.min(w, h) * 0.3} fill="#d9d2bf" stroke={line.stroke} strokeWidth={0.2} />
				</>
			);
		case "pad":
			return (
				<>
					<rect {...box} rx={0.8} fill="var(--color-card)" {...line} />
					<path
						d={`M${-w * 0.16} ${-w * 0.16}h${w * 0.32}v${w * 0.32}h${-w * 0.32}z`}
						fill="#d9d2bf"
						stroke={line.stroke}
						strokeWidth={0.2}
					/>
				</>
			);
		case "stick":
			return (
				<>
					<rect {...box} rx={1.5} fill="#cfc7b2" {...line} />
					<circle r={w * 0.42} fill="var(--color-card)" stroke={line.stroke} strokeWidth={0.25} />
					<circle r={w * 0.2} fill="#d9d2bf" stroke={line.stroke} strokeWidth={0.25} />
				</>
			);
		case "encoder":
			return (
				<>
					<rect {...box} rx={0.6} fill="#cfc7b2" {...line} />
					<circle
						r={Math.min(w, h) * 0.44}
						fill="var(--color-card)"
						stroke={line.stroke}
						strokeWidth={0.3}
						strokeDasharray="0.8 0.5"
					/>
				</>
			);
		case "slider":
			return (
				<>
					<rect {...box} rx={0.6} fill="var(--color-card)" {...line} />
					<line x1={-w * 0.36} x2={w * 0.36} y1={-h * 0.22} y2={-h * 0.22} stroke={line.stroke} strokeWidth={0.5} />
				</>
			);
		case "touch":
			return <circle r={w / 2} fill="#e3c9a9" {...line} strokeDasharray="0.8 0.8" />;
		case "trigger":
			return <rect {...box} rx={0.3} fill="#b9d2cf" {...line} />;
		case "cell":
			return (
				<rect
					{...box}
					rx={1}
					fill="#00000008"
					{...line}
					strokeWidth={0.15}
					strokeDasharray="1.2 0.8"
					stroke={line.strokeWidth > 0.3 ? line.stroke : "#8d8676"}
				/>
			);
		case "glass":
			return <rect {...box} rx={0.6} fill="#dfe3da" {...line} />;
		case "hole":
			return (
				<>
					<circle r={w / 2} fill="var(--color-card)" {...line} strokeWidth={0.15} strokeDasharray="0.6 0.4" />
					<circle r={w / 4} fill="var(--color-paper)" stroke={line.stroke} strokeWidth={0.25} />
				</>
			);
		case "light":
			return <circle r={1.2} fill="#e3a64a" {...line} />;
		default:
			return <rect {...box} rx={0.3} fill="#cfc7b2" {...line} />;
	}
}
