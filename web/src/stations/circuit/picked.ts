import type { Schemas } from "../../api/client";

export type View = Schemas["CircuitView"];
export type Component = Schemas["ComponentView"];
export type Sheet = Schemas["SheetView"];
export type Change = Schemas["ChangeView"];

/** What a person looks at: a part by its reference, or a net by its name. */
export type Picked = { kind: "part" | "net"; name: string } | null;

/** The value of a part where it is short enough to stand beside its reference. */
export function titleOf(component: Component): string {
	const value = component.value && component.value.length <= 14 ? ` ${component.value}` : "";
	return `${component.ref}${value}`;
}
