import type { ControlKind } from "./controlKinds";

/** A small mark for each kind of control. */
export function KindMark({ kind }: { kind: ControlKind }) {
	return (
		<svg
			width="15"
			height="15"
			viewBox="0 0 16 16"
			aria-hidden="true"
			fill="none"
			stroke="currentColor"
			strokeWidth="1.4"
		>
			<Shape kind={kind} />
		</svg>
	);
}

function Shape({ kind }: { kind: ControlKind }) {
	switch (kind) {
		case "button":
			return (
				<>
					<rect x="2" y="2" width="12" height="12" rx="2" />
					<circle cx="8" cy="8" r="3.2" />
				</>
			);
		case "pad":
			return <path d="M6 2h4v4h4v4h-4v4H6v-4H2V6h4z" />;
		case "stick":
			return (
				<>
					<circle cx="8" cy="8" r="6" />
					<circle cx="9.5" cy="6.5" r="2.2" fill="currentColor" />
				</>
			);
		case "trigger":
			return <path d="M3 3c7 0 10 3 10 10M3 3v10h4" />;
		case "encoder":
			return (
				<>
					<circle cx="8" cy="8" r="5.6" strokeDasharray="1.8 1.4" />
					<path d="M8 8V3.4" />
				</>
			);
		case "slider":
			return <path d="M1.5 8h13M10 4.5v7" />;
		case "touch":
			return <circle cx="8" cy="8" r="5.6" strokeDasharray="0.9 1.6" />;
	}
}
