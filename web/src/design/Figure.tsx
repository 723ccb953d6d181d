import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { Working } from "../api/client";

/** A computed number: press it for its formula, inputs and source. */
export function Figure({ working, unit = true }: { working: Working; unit?: boolean }) {
	const bare = working.shown.endsWith(working.unit) ? "" : working.unit;
	return (
		<Popover className="relative inline-block">
			<PopoverButton
				className="figure cursor-help border-b border-dotted border-ink-2 text-right"
				aria-label={`${working.title}: ${working.shown} ${bare}, show the working`}
				data-working={working.id}
			>
				{working.shown}
			</PopoverButton>
			{unit && bare ? <span className="ml-1 text-ink-2">{bare}</span> : null}
			<PopoverPanel
				anchor={{ to: "bottom end", gap: 6, padding: 8 }}
				className="z-30 w-[340px] rounded border border-line bg-card p-3 text-left shadow-lg"
			>
				<p className="font-semibold">{working.title}</p>
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
					Source: {working.source.kind}. {working.source.text}.
				</p>
			</PopoverPanel>
		</Popover>
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
