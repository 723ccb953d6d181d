import { Refusal } from "../api/refusal";

export const AGAIN_AFTER_MS = 1_500;

/** Does something that the server has to answer, again and again while it is away; `away` is told each time. */
export async function patiently<T>(
	go: () => Promise<T>,
	away: () => void,
	pause: () => Promise<void> = () => new Promise((done) => setTimeout(done, AGAIN_AFTER_MS)),
): Promise<T> {
	for (;;) {
		try {
			return await go();
		} catch (problem) {
			if (!(problem instanceof Refusal) || problem.status !== 0) throw problem;
			away();
			await pause();
		}
	}
}
