import { expect, test } from "vitest";
import { stepsIn } from "./takingList";

test("steps are read where they stand whole, the rest waits", () => {
	const one = 'data: {"done":250,"of":900,"faults":[],"more_faults":0}\n\n';
	const { steps, rest } = stepsIn(`${one}${one}data: {"done":5`);
	expect(steps.map((step) => step.done)).toEqual([250, 250]);
	expect(rest).toBe('data: {"done":5');
	expect(stepsIn("")).toEqual({ steps: [], rest: "" });
});
