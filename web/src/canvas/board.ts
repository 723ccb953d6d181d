import type { Schemas } from "../api/client";

/** A board as the server draws it, and what is met on it. */
export type Board = Schemas["BoardDrawing"];
export type Part = Schemas["PartView"];
export type Pad = Schemas["PadView"];
export type Side = "near" | "far";
export type Hit = { net: string; words: string; part: string };
