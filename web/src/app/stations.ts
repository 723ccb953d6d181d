export const STATIONS = [
	{ name: "brief", title: "Brief", about: "controls, shell, cells" },
	{ name: "parts", title: "Parts", about: "drawers and the kit" },
	{ name: "power", title: "Power", about: "sources, rails, run time" },
	{ name: "pins", title: "Pins", about: "which pin carries what" },
	{ name: "circuit", title: "Circuit", about: "parts and nets" },
	{ name: "board", title: "Board", about: "place, route, pour" },
	{ name: "stack", title: "Stack", about: "shell, screws, openings" },
	{ name: "release", title: "Release", about: "files, proof, order" },
	{ name: "build", title: "Build", about: "soldering, first power, faults" },
	{ name: "log", title: "Log", about: "faults, fixes, revisions" },
] as const;

export type StationName = (typeof STATIONS)[number]["name"];

export const isStation = (name: string | undefined): name is StationName => STATIONS.some((s) => s.name === name);
