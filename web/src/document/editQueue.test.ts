import { expect, test } from "vitest";
import type { Edit } from "../api/client";
import { EditQueue } from "./editQueue";

const move = (name: string, x: number): Edit => ({ kind: "move-thing", name, x_mm: x, y_mm: 0 }) as Edit;

function slow(refuse: (edit: Edit) => boolean = () => false) {
	const sent: Edit[] = [];
	let open = 0;
	let most = 0;
	const queue = new EditQueue(async (edit) => {
		most = Math.max(most, ++open);
		sent.push(edit);
		await new Promise((done) => setTimeout(done, 2));
		open--;
		return !refuse(edit);
	});
	return { queue, sent, most: () => most };
}

test("twenty nudges in a row become the first and the last, never two at a time", async () => {
	const { queue, sent, most } = slow();
	const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => queue.put(move("key 1", i))));
	expect(sent).toEqual([move("key 1", 0), move("key 1", 19)]);
	expect(answers.every((done) => done)).toBe(true);
	expect(most()).toBe(1);
});

test("edits of different things all go, in their order", async () => {
	const { queue, sent } = slow();
	await Promise.all([
		queue.put(move("a", 1)),
		queue.put(move("b", 1)),
		queue.put(move("c", 1)),
		queue.put(move("b", 2)),
	]);
	expect(sent).toEqual([move("a", 1), move("b", 1), move("c", 1), move("b", 2)]);
});

test("a refused one says so, and the next still goes", async () => {
	const { queue } = slow((edit) => edit.kind === "move-thing" && edit.name === "bad");
	const answers = await Promise.all([
		queue.put(move("good", 1)),
		queue.put(move("bad", 1)),
		queue.put(move("good", 2)),
	]);
	expect(answers).toEqual([true, false, true]);
});

test("an undo waits for the edits before it, and a later move is not joined to an earlier one", async () => {
	const { queue, sent } = slow();
	const order: string[] = [];
	await Promise.all([
		queue.put(move("a", 1)),
		queue.after(async () => {
			order.push(`undo after ${sent.length}`);
			return true;
		}),
		queue.put(move("a", 2)),
	]);
	expect(order).toEqual(["undo after 1"]);
	expect(sent).toEqual([move("a", 1), move("a", 2)]);
});
