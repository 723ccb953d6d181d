import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { Button } from "../design/Button";

const KEYS: [string, string][] = [
	["1 to 9, 0", "go to a station"],
	["Ctrl+Z, Ctrl+Shift+Z or Ctrl+Y", "undo, redo"],
	["Ctrl+K", "find a thing, pin, part or net"],
	["Tab", "walk the things or parts"],
	["arrow keys", "nudge the selected one by 0.1 mm; with Shift by 1 mm"],
	["Ctrl+C, Ctrl+X, Ctrl+V", "copy, cut, paste where the pointer is, into any project (Brief)"],
	["Delete", "remove what is picked (Brief); cut the picked track (Board)"],
	[
		"Shift+press",
		"pick several, to move, line up or mirror them (Brief), to line up, spread, swap, mirror them or put them in rows (Board)",
	],
	["R", "turn the picked thing by 90 degrees; with Shift by 15 (Brief)"],
	["Q", "turn the selected part by 90 degrees (Board)"],
	["wheel or + and -, drag on empty board", "zoom, pan; Home shows the whole board (Board)"],
	["Space, Backspace, Enter", "while a track is drawn: other side, step back, end (Board)"],
	["Backspace, Enter, Escape", "while the line of an area is drawn: step back, close it, give it up (Board)"],
	["Escape", "leave a selection or a window"],
	["?", "this sheet"],
];

export function KeySheet({ open, close }: { open: boolean; close: () => void }) {
	return (
		<Dialog open={open} onClose={close} className="relative z-40">
			<div className="fixed inset-0 bg-ink/30" aria-hidden="true" />
			<div className="fixed inset-0 flex items-center justify-center p-6">
				<DialogPanel className="w-[560px] rounded border border-line bg-card p-5">
					<DialogTitle className="text-[16px] font-semibold">Keys</DialogTitle>
					<dl className="mt-3 grid grid-cols-[190px_1fr] gap-x-4 gap-y-1.5">
						{KEYS.map(([key, what]) => (
							<div key={key} className="contents">
								<dt className="figure">{key}</dt>
								<dd className="text-ink-2">{what}</dd>
							</div>
						))}
					</dl>
					<div className="mt-4 text-right">
						<Button onClick={close}>Close</Button>
					</div>
				</DialogPanel>
			</div>
		</Dialog>
	);
}
