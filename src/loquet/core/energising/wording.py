"""States in words."""

from loquet.core.energising.states import Level, State, Way

PORT: dict[Level, str] = {
    "least": "plugged in and at its least volts",
    "usual": "plugged in",
    "most": "plugged in and at its most volts",
    "reversed": "the wrong way round",
}
STORE: dict[Level, str] = {
    "least": "nearly empty",
    "usual": "in",
    "most": "full",
    "reversed": "put in backwards",
}
ACTS = {
    "dark": "switched off",
    "reset": "before the firmware runs",
    "asleep": "asleep",
    "high": "lines driven high",
    "low": "lines driven low",
    "runs": "in use",
}


def words_of(state: State, ways: tuple[Way, ...]) -> str:
    """A state as the beginning of a sentence: `With cell full, lines driven high`."""
    by_name = {way.name: way for way in ways}
    there = [
        f"{by_name[name].label} {level_words(by_name[name], level)}"
        for name, level in state.sources
    ]
    parts = [f"With {' and '.join(there)}" if there else "With nothing plugged in"]
    if state.contact:
        parts.append(f"{state.key} held")
    else:
        alone = f"the lines of {state.alone} {state.acts}, nobody else drives"
        parts.append(alone if state.alone else ACTS[state.acts])
    if state.mode == "peak":
        parts.append("everything on at once")
    return ", ".join(parts)


def level_words(way: Way, level: Level) -> str:
    """How a source is there."""
    if level == "wrong":
        return f"on an adapter of {way.wrong_v:g} V"
    return (PORT if way.stays else STORE)[level]
