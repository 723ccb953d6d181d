import { colourOf, type Lit, saidVolts } from "./lit";

const STOPS = 7;

/** What the colours of lit wires mean: from nothing to the most volts there are; of a picked net its own. */
export function VoltsScale({ lit, net }: { lit: Lit; net?: string | null }) {
	const colours = Array.from({ length: STOPS }, (_, i) => colourOf((lit.most * i) / (STOPS - 1), lit.most));
	const node = net ? lit.nodes.get(net) : undefined;
	return (
		<span className="flex items-center gap-1.5 whitespace-nowrap text-[12px]" data-testid="volts-scale">
			<span className="figure">0 V</span>
			<span className="h-2 w-16" style={{ background: `linear-gradient(to right, ${colours.join(", ")})` }} />
			<span className="figure">{lit.most.toFixed(1)} V</span>
			{node && (
				<span className="ml-1">
					{net} <span className="figure font-medium">{saidVolts(node.volts)}</span>
				</span>
			)}
		</span>
	);
}
