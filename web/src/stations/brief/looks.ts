/** What is done with the outline: nothing, shaped by hand, or taken from a drawing. */
export type Outlining = "no" | "shape" | "drawing";
/** Whose thumbs are drawn beside the device. */
export type Hand = "none" | "small" | "medium" | "large";
