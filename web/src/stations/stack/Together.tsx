import { Figure } from "../../design/Figure";
import { Sign } from "../../design/Sign";
import type { Stack } from "./stack";

/** The order in which it goes together, and whether everything is reached that is reached for. */
export function Together({ stack }: { stack: Stack }) {
	const { steps, watch, impossible } = stack.order;
	return (
		<div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
			<h2 className="border-b border-ink pb-1 font-semibold">In this order</h2>
			{impossible.map((why) => (
				<p key={why} className="mt-2 flex items-start gap-2 text-stop">
					<Sign kind="stop" /> {why}
				</p>
			))}
			<ol className="mt-1" data-testid="order">
				{steps.map((step, index) => (
					<li key={step} className="flex gap-3 border-b border-rule py-1.5">
						<span className="figure w-[2ch] text-right text-ink-2">{index + 1}</span>
						{step}
					</li>
				))}
			</ol>
			{watch.map((words) => (
				<p key={words} className="mt-2 flex items-start gap-2">
					<Sign kind="look" /> {words}
				</p>
			))}
			{stack.wires.length > 0 && (
				<>
					<h2 className="mt-5 border-b border-ink pb-1 font-semibold">Wires</h2>
					<ul data-testid="wires">
						{stack.wires.map((run) => (
							<Wires key={run.thing} run={run} />
						))}
					</ul>
				</>
			)}
			<h2 className="mt-5 border-b border-ink pb-1 font-semibold">Reached when it is needed</h2>
			<ul data-testid="reached">
				{stack.reached.map((row) => (
					<li key={row.thing} className="flex items-start gap-2 border-b border-rule py-1.5">
						<span className="mt-[3px]">
							<Sign kind={row.reached ? "clear" : "look"} />
						</span>
						<span>
							<span className="font-medium">{row.thing}</span>: {row.words}, shell {row.closed ? "closed" : "open"}
							<span className="block text-[12px] text-ink-2">{row.how}</span>
						</span>
					</li>
				))}
			</ul>
			{stack.reached.length === 0 && <p className="py-2 text-ink-2">Nothing on this board is reached for.</p>}
		</div>
	);
}

/** Wires of one loose thing: gauge, what each carries, how long it is cut, how wide its channel is. */
function Wires({ run }: { run: Stack["wires"][number] }) {
	const passes = run.legs.length > 1;
	return (
		<li className="flex items-start gap-2 border-b border-rule py-1.5">
			<span className="mt-[3px]">
				<Sign kind={run.problem ? "look" : "clear"} />
			</span>
			<span>
				<span className="font-medium">{run.thing}</span> to {run.ref}: <span className="figure">{run.gauge}</span> AWG,{" "}
				{run.carries.join(" and ")}
				<span className="block text-[12px] text-ink-2">
					{run.problem || (
						<>
							{run.workings.map((figure) => (
								<span key={figure.id} className="mr-4">
									{figure.title} <Figure working={figure} />
								</span>
							))}
							channel <span className="figure">{run.channel_mm.toFixed(2)} mm</span>
							{passes && "; passes the board once"}
						</>
					)}
				</span>
			</span>
		</li>
	);
}
