import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { useRef, useState } from "react";
import type { Working } from "../api/client";

const WIDE = 340;
const EDGE = 8;

/** A computed number: press it for its formula, inputs and source. */
export function Figure({ working, unit = true }: { working: Working; unit?: boolean }) {
	const bare = working.shown.endsWith(working.unit) ? "" : working.unit;
	const button = useRef<HTMLButtonElement>(null);
	const [open, setOpen] = useState(false);
	return (
		<span className="relative inline-block">
			<button
				ref={button}
				type="button"
				className="figure cursor-help border-b border-dotted border-ink-2 text-right"
				aria-label={`${working.shown} ${bare}: ${working.title}, show the working`}
				aria-haspopup="dialog"
				data-working={working.id}
				onClick={() => setOpen(true)}
			>
				{working.shown}
			</button>
			{unit && bare ? <span className="ml-1 text-ink-2">{bare}</span> : null}
			<Dialog open={open} onClose={() => setOpen(false)} className="relative z-40">
				<div className="fixed inset-0" aria-hidden="true" />
				<DialogPanel
					className="fixed overflow-y-auto rounded border border-line bg-card p-3 text-left shadow-lg"
					style={beside(button.current)}
					data-testid="working"
					tabIndex={0}
				>
					<Shown working={working} bare={bare} />
				</DialogPanel>
			</Dialog>
		</span>
	);
}

/** Below the number where there is room, else above; never beyond the window. */
function beside(button: HTMLElement | null) {
	const box = button?.getBoundingClientRect();
	if (!box) return { width: WIDE, left: EDGE, top: EDGE };
	const left = Math.min(Math.max(EDGE, box.right - WIDE), window.innerWidth - WIDE - EDGE);
	const below = window.innerHeight - box.bottom - 2 * EDGE;
	const above = box.top - 2 * EDGE;
	return below >= 240 || below >= above
		? { width: WIDE, left, top: box.bottom + 6, maxHeight: below }
		: { width: WIDE, left, bottom: window.innerHeight - box.top + 6, maxHeight: above };
}

function Shown({ working, bare }: { working: Working; bare: string }) {
	return (
		<>
			<DialogTitle className="font-semibold">{working.title}</DialogTitle>
			<p className="figure mt-1">
				= {working.shown} {bare}
			</p>
			<p className="figure mt-1 text-[12px] text-ink-2">{working.formula}</p>
			{(working.inputs ?? []).length > 0 && (
				<table className="mt-2 w-full border-t border-rule text-[12px]">
					<tbody>
						{(working.inputs ?? []).map((input) => (
							<tr key={input.name} className="border-b border-rule align-top">
								<td className="py-1 pr-2">{input.name}</td>
								<td className="figure py-1 pr-2 text-right whitespace-nowrap">
									{input.value} <span className="text-ink-2">{input.unit}</span>
								</td>
								<td className="py-1 text-ink-2">{input.origin}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<p className="mt-2 text-[12px] text-ink-2">
				Source: {working.source.kind}; {working.source.text}.
			</p>
		</>
	);
}

/** Rows of figures with their titles. */
export function Figures({ workings }: { workings: Working[] }) {
	return (
		<dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
			{workings.map((working) => (
				<div key={working.id} className="contents">
					<dt className="text-ink-2">{working.title}</dt>
					<dd className="text-right">
						<Figure working={working} />
					</dd>
				</div>
			))}
		</dl>
	);
}
