/** The shapes of findings and states: never colour alone. */
export type SignKind = "stop" | "look" | "note" | "clear" | "stale" | "empty" | "working";

const WORDS: Record<SignKind, string> = {
	stop: "stop",
	look: "look",
	note: "note",
	clear: "clear",
	stale: "stale",
	empty: "empty",
	working: "working",
};

export function Sign({ kind, size = 14 }: { kind: SignKind; size?: number }) {
	return (
		<svg width={size} height={size} viewBox="0 0 16 16" role="img" aria-label={WORDS[kind]} className="shrink-0">
			<Shape kind={kind} />
		</svg>
	);
}

function Shape({ kind }: { kind: SignKind }) {
	switch (kind) {
		case "stop":
			return <path d="M5 1h6l4 4v6l-4 4H5l-4-4V5z" fill="var(--color-stop)" />;
		case "look":
			return <path d="M8 1.5 15 14.5H1z" fill="var(--color-look)" />;
		case "note":
			return <circle cx="8" cy="8" r="5" fill="var(--color-note)" />;
		case "clear":
			return <path d="m2.5 8.5 3.5 4 7.5-9" fill="none" stroke="var(--color-clear)" strokeWidth="2.6" />;
		case "stale":
			return (
				<path d="M13 8a5 5 0 1 1-1.6-3.7M13 1.5v3.6H9.4" fill="none" stroke="var(--color-look)" strokeWidth="1.8" />
			);
		case "working":
			return (
				<circle cx="8" cy="8" r="5" fill="none" stroke="var(--color-patina)" strokeWidth="2" strokeDasharray="4 3" />
			);
		case "empty":
			return <circle cx="8" cy="8" r="5" fill="none" stroke="#8d8676" strokeWidth="1.4" />;
	}
}
