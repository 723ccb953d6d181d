import type { Edit } from "../api/client";

type Waiting = { edit: Edit; answers: ((done: boolean) => void)[] };
type Move = Extract<Edit, { kind: "move-thing" }>;

/** Edits go out one after the other; of moves of one thing that still wait, only the last goes. */
export class EditQueue {
	private waiting: Waiting[] = [];
	private running: Promise<void> | null = null;

	/** `send` puts one edit and says whether it was taken. */
	constructor(private readonly send: (edit: Edit) => Promise<boolean>) {}

	/** Whether the edit was taken; a move that a later move replaced answers with that one. */
	put(edit: Edit): Promise<boolean> {
		return new Promise((answer) => {
			const last = this.waiting.at(-1);
			if (last && isMove(edit) && isMove(last.edit) && last.edit.name === edit.name) {
				last.edit = { ...last.edit, ...edit };
				last.answers.push(answer);
			} else this.waiting.push({ edit, answers: [answer] });
			this.running ??= this.run();
		});
	}

	private async run(): Promise<void> {
		for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
			const done = await this.send(next.edit);
			for (const answer of next.answers) answer(done);
		}
		this.running = null;
	}
}

const isMove = (edit: Edit): edit is Move => edit.kind === "move-thing" && edit.turn_deg == null && edit.far == null;
