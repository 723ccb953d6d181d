import { describe, expect, it } from "vitest";
import { dayOf, span } from "./days";

describe("the days of a calendar", () => {
	it("are counted over months and leap years", () => {
		expect(dayOf("2028-03-01") - dayOf("2028-02-28")).toBe(2);
	});
	it("reach from what is earliest to what is latest", () => {
		const plan = {
			today: "2026-11-26",
			wanted: "2026-12-24",
			ready: "2026-12-30",
			legs: [{ latest_start: "2026-11-20" }],
		};
		expect(span(plan)).toEqual({ from: dayOf("2026-11-20"), days: 40 });
	});
});
