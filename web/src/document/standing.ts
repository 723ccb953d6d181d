/** What stands before an order, in words: stops first, then what is still to be made. */
export function standing(stops: number, todo: number): string {
	if (stops) return `${stops} ${stops === 1 ? "stop" : "stops"}`;
	return todo ? `${todo} to make` : "No stops";
}
