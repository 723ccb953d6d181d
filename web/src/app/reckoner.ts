import { createContext, useContext } from "react";

/** What is under the pointer, in the station's own words. */
export const ReckonerContext = createContext<(text: string) => void>(() => undefined);
export const useReckoner = () => useContext(ReckonerContext);

/** Which finding or thing the tray asks the station to show; `state` is that in which the device is to be switched on for it. */
export type Shown = { about: string[]; x: number | null; y: number | null; state?: string } | null;
export const ShownContext = createContext<{ shown: Shown; show: (shown: Shown) => void }>({
	shown: null,
	show: () => undefined,
});
export const useShown = () => useContext(ShownContext);
