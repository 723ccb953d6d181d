import { Link } from "react-router";
import { Button } from "../../design/Button";
import { Sign } from "../../design/Sign";
import { standing } from "../../document/standing";
import type { Card, Kept } from "./shelf";

/** A project on the shelf: its board, what it is, where it stands; while something is made of it, how far that is. */
export function Row({ card, keep }: { card: Card; keep: (to: Kept) => void }) {
	return (
		<li className="flex items-center border-b border-rule hover:bg-card">
			{card.readable ? (
				<Link
					to={`/project/${card.id}/${card.next_station === "release" ? "board" : card.next_station}`}
					data-project={card.name}
					data-stops={card.stops}
					data-todo={card.todo}
					className="grid min-w-0 flex-1 grid-cols-[96px_1fr_180px_240px] items-center gap-5 px-2 py-3 max-[900px]:grid-cols-[96px_1fr_130px] max-[900px]:gap-3"
				>
					<Picture card={card} />
					<span>
						<span className="block text-[16px] font-semibold">
							{card.name} <span className="font-normal text-ink-2">revision {card.revision}</span>
						</span>
						<span className="block text-ink-2">{card.purpose}</span>
					</span>
					<span className="figure text-[12px] text-ink-2 max-[900px]:hidden">
						{card.controls} {card.controls === 1 ? "control" : "controls"}, {card.width_mm.toFixed(0)} x{" "}
						{card.height_mm.toFixed(0)} mm
						<br />
						{card.chip}
					</span>
					<span className="text-[12px]">
						<Standing card={card} />
						<span className="block text-ink-2">
							{card.quantity} wanted by <span className="figure">{card.wanted_by}</span>
						</span>
					</span>
				</Link>
			) : (
				<span data-project={card.name} className="flex min-w-0 flex-1 items-center gap-3 px-2 py-4">
					<Sign kind="stop" />
					<span>
						<span className="block text-[16px] font-semibold">{card.name}</span>
						This project cannot be read, so it cannot be opened. Read it in again from a file or a backup; it can be
						removed here.
					</span>
				</span>
			)}
			<span className="flex w-[150px] justify-end max-[900px]:w-[90px] max-[900px]:flex-col">
				{card.kept !== "shelf" && (
					<Button weight="quiet" aria-label={`Put ${card.name} on the shelf`} onClick={() => keep("shelf")}>
						Put back
					</Button>
				)}
				{card.kept === "shelf" && (
					<Button weight="quiet" aria-label={`Archive ${card.name}`} onClick={() => keep("archive")}>
						Archive
					</Button>
				)}
				{card.kept !== "removed" && (
					<Button weight="quiet" aria-label={`Remove ${card.name}`} onClick={() => keep("removed")}>
						Remove
					</Button>
				)}
			</span>
		</li>
	);
}

/** The job that runs, else stops, what is to be made, or that nothing stands before an order. */
function Standing({ card }: { card: Card }) {
	const [job] = card.jobs;
	if (job)
		return (
			<span data-testid="being-made">
				<span className="flex items-center gap-2">
					<Sign kind="working" />
					<progress className="h-[6px] flex-1 accent-copper" max={1} value={job.share} aria-label="Progress" />
					<span className="figure">{Math.round(job.share * 100)} %</span>
				</span>
				<span className="block text-ink-2">{job.doing}</span>
			</span>
		);
	const sign = card.stops ? "stop" : card.todo ? "empty" : "clear";
	return (
		<span className="flex items-start gap-2" title={card.next}>
			<span className="mt-[1px]">
				<Sign kind={sign} />
			</span>
			{card.stops || card.todo ? `${standing(card.stops, card.todo)} before an order` : card.next}
		</span>
	);
}

/** The boards as they are made; the outline in proportion where they are not made yet. */
function Picture({ card }: { card: Card }) {
	if (card.pictured)
		return (
			<img
				src={`/api/projects/${card.id}/picture.svg?version=${card.version}`}
				alt=""
				width={96}
				height={64}
				loading="lazy"
				className="h-[64px] w-[96px] object-contain"
			/>
		);
	const scale = Math.min(88 / card.width_mm, 56 / card.height_mm);
	const [w, h] = [card.width_mm * scale, card.height_mm * scale];
	return (
		<svg width={96} height={64} aria-hidden="true">
			<rect
				x={48 - w / 2}
				y={32 - h / 2}
				width={w}
				height={h}
				rx={4}
				fill="none"
				stroke="var(--color-line)"
				strokeDasharray="4 3"
			/>
		</svg>
	);
}
