import type { Schemas } from "../../api/client";
import { Refusal } from "../../api/refusal";

export type Step = Schemas["ListStep"];

/** The steps that stand whole in a piece of the answer, and what is left of it. */
export function stepsIn(text: string): { steps: Step[]; rest: string } {
	const pieces = text.split("\n\n");
	const rest = pieces.pop() ?? "";
	return { steps: pieces.map((piece) => JSON.parse(piece.replace(/^data: /, "")) as Step), rest };
}

/** Take a price list in, hearing how far it is; the last step says what was kept or what is wrong. */
export async function takeList(body: Schemas["ListTaken"], told: (step: Step) => void): Promise<Step | null> {
	const answer = await fetch("/api/shelf/price-list", {
		method: "POST",
		headers: { "Content-Type": "application/json", "X-Loquet": "page" },
		body: JSON.stringify(body),
	});
	if (!answer.ok || !answer.body) {
		const problem = (await answer.json()) as Schemas["Problem"];
		throw new Refusal(problem.sentence, problem.way_out ?? "", answer.status, problem.place ?? "");
	}
	const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
	let left = "";
	let last: Step | null = null;
	for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
		const { steps, rest } = stepsIn(left + piece.value);
		left = rest;
		for (const step of steps) {
			last = step;
			told(step);
		}
	}
	return last;
}
