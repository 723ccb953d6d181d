import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type DesignHead = Schemas["DesignHead"];
export type Finding = Schemas["Finding"];
export type Working = Schemas["Working"];
export type Edit = Schemas["EditRequest"]["edit"];
export type JobKind = Schemas["JobRequest"]["kind"];
export type JobCard = Schemas["JobCard"];

export const client = createClient<paths>({
	baseUrl: window.location.origin,
	headers: { "X-Loquet": "page" },
});

/** An answer of the server that is not what was asked for: a sentence, a way out, and where. */
export class Refusal extends Error {
	constructor(
		readonly sentence: string,
		readonly wayOut: string,
		readonly status: number,
	) {
		super(`${sentence} ${wayOut}`.trim());
	}
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer, or its refusal thrown. */
export async function take<T>(request: Promise<Answer<T>>): Promise<T> {
	let answer: Answer<T>;
	try {
		answer = await request;
	} catch {
		throw new Refusal("Loquet does not answer.", "Start it again with ./loquet start; nothing is lost.", 0);
	}
	if (answer.response.ok) return answer.data as T;
	const problem = (answer.error ?? {}) as { sentence?: string; way_out?: string };
	throw new Refusal(problem.sentence ?? "The request was refused.", problem.way_out ?? "", answer.response.status);
}
