/** Round values that part an axis: decades on a logarithmic one, else four to six steps of 1, 2 or 5. */
export function ticksOf(low: number, high: number, log: boolean): number[] {
	if (log) {
		const first = Math.ceil(Math.log10(low) - 1e-9);
		const last = Math.floor(Math.log10(high) + 1e-9);
		return Array.from({ length: last - first + 1 }, (_, at) => 10 ** (first + at));
	}
	const span = high - low || 1;
	const rough = span / 5;
	const power = 10 ** Math.floor(Math.log10(rough));
	const step = ([1, 2, 5, 10].find((s) => s * power >= rough - 1e-12) ?? 10) * power;
	const start = Math.ceil(low / step - 1e-9);
	const end = Math.floor(high / step + 1e-9);
	return Array.from({ length: end - start + 1 }, (_, at) => Number(((start + at) * step).toPrecision(10)));
}

/** Where a value lies on an axis, from 0 to 1. */
export function shareOf(value: number, low: number, high: number, log: boolean): number {
	if (log) return (Math.log10(value) - Math.log10(low)) / (Math.log10(high) - Math.log10(low) || 1);
	return (value - low) / (high - low || 1);
}

/** A tick in few letters: 1k, 1M, 0.5. */
export function tickText(value: number): string {
	if (Math.abs(value) >= 1e6) return `${value / 1e6}M`;
	if (Math.abs(value) >= 1e3) return `${value / 1e3}k`;
	return String(value);
}
