import type { Edit } from "../api/client";

type Waiting = { edit: Edit | null; go: () => Promise<boolean>; answers: ((done: boolean) => void)[] };
type Move = Extract<Edit, { kind: "move-thing" }>;

/** Edits go out one after the other; of moves of one thing that still wait, only the last goes. Undo, redo and jobs wait for them. */
export class EditQueue {
	private waiting: Waiting[] = [];
	private running: Promise<void> | null = null;

	/** `send` puts one edit and says whether it was taken; `underWay` is told when the queue starts and when it is empty again. */
	constructor(
		private readonly send: (edit: Edit) => Promise<boolean>,
		private readonly underWay: (busy: boolean) => void = () => {},
	) {}

	/** Whether the edit was taken; a move that a later move replaced answers with that one. */
	put(edit: Edit): Promise<boolean> {
		return new Promise((answer) => {
			const last = this.waiting.at(-1);
			if (last?.edit && isMove(edit) && isMove(last.edit) && last.edit.name === edit.name) {
				last.edit = { ...last.edit, ...edit };
				last.answers.push(answer);
			} else {
				const row: Waiting = { edit, go: () => this.send(row.edit ?? edit), answers: [answer] };
				this.waiting.push(row);
			}
			this.running ??= this.run();
		});
	}

	/** Does something after all edits that wait now, and before later ones. */
	after(go: () => Promise<boolean>): Promise<boolean> {
		return new Promise((answer) => {
			this.waiting.push({ edit: null, go, answers: [answer] });
			this.running ??= this.run();
		});
	}

	private async run(): Promise<void> {
		this.underWay(true);
		for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
			const done = await next.go();
			for (const answer of next.answers) answer(done);
		}
		this.running = null;
		this.underWay(false);
	}
}

const isMove = (edit: Edit): edit is Move => edit.kind === "move-thing" && edit.turn_deg == null && edit.far == null;
