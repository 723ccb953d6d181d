import type { ComponentProps } from "react";
import { Button } from "./Button";

/** A button that is on or off. */
export function Toggle({ on, className = "", ...rest }: ComponentProps<typeof Button> & { on: boolean }) {
	return <Button aria-pressed={on} className={`${on ? "!bg-ink !text-paper" : ""} ${className}`} {...rest} />;
}
