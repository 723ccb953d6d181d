const PATHS: Record<string, string> = {
	round: "M2 2h12v12H2zM8 4.8a3.2 3.2 0 1 0 .01 0",
	cross: "M6 2h4v4h4v4h-4v4H6v-4H2V6h4z",
	stick: "M8 2a6 6 0 1 0 .01 0M9.5 4.5a2 2 0 1 0 .01 0",
	wedge: "M3 3c7 0 10 3 10 10M3 3v10h4",
	knob: "M8 2.4a5.6 5.6 0 1 0 .01 0M8 8V3",
	slide: "M1.5 8h13M10 4.5v7",
	ring: "M8 2.4a5.6 5.6 0 1 0 .01 0M8 5a3 3 0 1 0 .01 0",
	glass: "M2 3h12v8H2zM5 14h6",
	lamp: "M8 3a3.5 3.5 0 1 0 .01 0M8 13v1.5M3 12l-1 1M13 12l1 1",
	chain: "M1 6h4v4H1zM6 6h4v4H6zM11 6h4v4h-4z",
	grid: "M2 2h5v5H2zM9 2h5v5H9zM2 9h5v5H2zM9 9h5v5H9z",
	sound: "M2 6h3l4-3v10l-4-3H2zM11 6c1.4 1 1.4 3 0 4",
	socket: "M3 3h10v10H3zM8 6a2 2 0 1 0 .01 0",
	cell: "M2 5h11v6H2zM13 7h1.5v2H13M5 8h3M6.5 6.5v3",
	plug: "M4 3h8v6l-2 3H6L4 9zM6 3V1M10 3V1",
	header: "M1 6h14v4H1zM3.5 8h.01M6.5 8h.01M9.5 8h.01M12.5 8h.01",
	card: "M4 2h6l3 3v9H4zM6 5v2M8 5v2",
	chip: "M4 4h8v8H4zM6 4V2M10 4V2M6 14v-2M10 14v-2M4 6H2M4 10H2M14 6h-2M14 10h-2",
	crystal: "M5 4v8M11 4v8M7 5h2v6H7zM5 8H2M11 8h3",
	sensor: "M3 3h10v10H3zM6 8h4M8 6v4",
	box: "M3 4h10v8H3z",
	hole: "M8 2a6 6 0 1 0 .01 0M8 5.5a2.5 2.5 0 1 0 .01 0",
	free: "M2 2l3 0M7 2h3M12 2h2v3M14 7v3M14 12v2h-3M9 14H6M4 14H2v-3M2 9V6",
	dot: "M8 5.5a2.5 2.5 0 1 0 .01 0",
	words: "M3 4h10M8 4v9",
};

/** A small mark for a kind of thing, drawn from the name that the kind gives it. */
export function Mark({ name }: { name: string }) {
	return (
		<svg
			width="15"
			height="15"
			viewBox="0 0 16 16"
			aria-hidden="true"
			fill="none"
			stroke="currentColor"
			strokeWidth="1.3"
			strokeLinecap="round"
		>
			<path d={PATHS[name] ?? PATHS.box} />
		</svg>
	);
}
