import { useEffect, useState } from "react";
import type { DesignHead } from "../api/client";
import { Button } from "../design/Button";
import { Sign } from "../design/Sign";
import { standing } from "../document/standing";
import { useDesign } from "../document/useDesign";

export function HeadStrip({
	onFind,
	onKeys,
	onHistory,
}: {
	onFind: () => void;
	onKeys: () => void;
	onHistory: () => void;
}) {
	const { head, underWay, undo, redo, edit } = useDesign();
	const rename = (name: string) => {
		if (name && name !== head.brief.name) void edit({ kind: "set-words", name });
	};
	return (
		<header className="flex h-[48px] shrink-0 items-center gap-4 border-b border-rule bg-card px-4 max-[800px]:gap-2 max-[800px]:px-2">
			<input
				key={head.brief.name}
				aria-label="Name of the project"
				className="[field-sizing:content] min-w-[60px] rounded-[3px] border border-transparent bg-transparent px-1 text-[16px] font-semibold hover:border-line focus:border-line"
				defaultValue={head.brief.name}
				maxLength={24}
				onBlur={(event) => rename(event.target.value.trim())}
				onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
			/>
			<span className="text-ink-2 max-[800px]:hidden">
				revision {head.revision}, {sizes(head.boards)}
			</span>
			<Meter stops={head.stops} todo={head.todo} />
			<span className="flex-1">{underWay && <UnderWay />}</span>
			<Button
				onClick={undo}
				disabled={!head.can_undo}
				title={head.can_undo ? `Undo: ${head.undo_label}` : "Nothing to undo"}
			>
				Undo
			</Button>
			<Button onClick={redo} disabled={!head.can_redo}>
				Redo
			</Button>
			<Button onClick={onHistory} data-testid="open-history">
				History
			</Button>
			<Button onClick={onFind} title="Ctrl+K">
				Find
			</Button>
			<Button weight="quiet" onClick={onKeys} aria-label="Sheet of keys">
				Keys
			</Button>
		</header>
	);
}

function sizes(boards: DesignHead["boards"]): string {
	const [only] = boards;
	return boards.length === 1 && only ? size(only.outline_mm) : `${boards.length} boards`;
}

function size(outline: [number, number][]): string {
	const xs = outline.map((p) => p[0]);
	const ys = outline.map((p) => p[1]);
	return `${(Math.max(...xs) - Math.min(...xs)).toFixed(2)} x ${(Math.max(...ys) - Math.min(...ys)).toFixed(2)} mm`;
}

const SHOWN_AFTER_MS = 300;

/** Shown while an edit waits for its answer longer than a hand notices. */
function UnderWay() {
	const [late, setLate] = useState(false);
	useEffect(() => {
		const timer = setTimeout(() => setLate(true), SHOWN_AFTER_MS);
		return () => clearTimeout(timer);
	}, []);
	return (
		<span
			role="status"
			data-testid={late ? "under-way" : undefined}
			className="flex items-center gap-2 whitespace-nowrap text-ink-2"
		>
			{late && (
				<>
					<Sign kind="working" size={12} />
					<span className="max-[1100px]:sr-only">Being saved</span>
				</>
			)}
		</span>
	);
}

/** What still stands between now and an order: stops, else what is still to be made. */
function Meter({ stops, todo }: { stops: number; todo: number }) {
	const [sign, look] = stops
		? (["stop", "border-stop text-stop"] as const)
		: todo
			? (["empty", "border-line text-ink-2"] as const)
			: (["clear", "border-clear text-clear"] as const);
	return (
		<span
			data-testid="ready-meter"
			className={`flex items-center gap-2 rounded-full border px-3 py-0.5 whitespace-nowrap ${look}`}
		>
			<Sign kind={sign} size={12} />
			<span>
				{standing(stops, todo)}
				<span className="max-[800px]:sr-only"> before an order</span>
			</span>
		</span>
	);
}
