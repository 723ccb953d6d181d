import { describe, expect, it } from "vitest";
import { Refusal } from "../api/refusal";
import { patiently } from "./patient";

const away = () => new Refusal("Loquet does not answer.", "", 0);
const refused = () => new Refusal("The name is taken.", "", 422);

describe("what is sent while the server is away", () => {
	it("is sent again until it is answered", async () => {
		let tries = 0;
		let told = 0;
		const answer = await patiently(
			async () => {
				tries += 1;
				if (tries < 4) throw away();
				return "kept";
			},
			() => {
				told += 1;
			},
			async () => {},
		);
		expect([answer, tries, told]).toEqual(["kept", 4, 3]);
	});

	it("is not sent again once it is refused", async () => {
		let tries = 0;
		const going = patiently(
			async () => {
				tries += 1;
				throw refused();
			},
			() => {},
			async () => {},
		);
		await expect(going).rejects.toThrow("The name is taken.");
		expect(tries).toBe(1);
	});
});
