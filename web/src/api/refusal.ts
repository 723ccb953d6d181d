/** An answer of the server that is not what was asked for: a sentence, a way out, and where. */
export class Refusal extends Error {
	constructor(
		readonly sentence: string,
		readonly wayOut: string,
		readonly status: number,
		readonly place = "",
	) {
		super(`${sentence} ${wayOut}`.trim());
	}
}
