import createClient from "openapi-fetch";
import { Refusal } from "./refusal";
import type { components, paths } from "./schema";

export { Refusal };

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

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer, or its refusal thrown. */
export async function take<T>(request: Promise<Answer<T>>): Promise<T> {
	let answer: Answer<T>;
	try {
		answer = await request;
	} catch {
		throw new Refusal(
			"Loquet does not answer.",
			"Start it again with ./loquet start; what it had answered is kept.",
			0,
		);
	}
	if (answer.response.ok) return answer.data as T;
	const problem = (answer.error ?? {}) as { sentence?: string; way_out?: string; place?: string };
	throw new Refusal(
		problem.sentence ?? "The request was refused.",
		problem.way_out ?? "",
		answer.response.status,
		problem.place,
	);
}
