/** Usages of the key page of HID (usage tables, page 0x07) that a key of a keyboard can send. */
export const USAGES: [number, string][] = [
	...[..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"].map((letter, index): [number, string] => [0x04 + index, letter]),
	...[..."1234567890"].map((digit, index): [number, string] => [0x1e + index, digit]),
	[0x28, "Enter"],
	[0x29, "Escape"],
	[0x2a, "Backspace"],
	[0x2b, "Tab"],
	[0x2c, "Space"],
	...Array.from({ length: 12 }, (_, index): [number, string] => [0x3a + index, `F${index + 1}`]),
	[0x4f, "Right arrow"],
	[0x50, "Left arrow"],
	[0x51, "Down arrow"],
	[0x52, "Up arrow"],
];
