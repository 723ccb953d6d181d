"""What a screen asks beyond the two-wire bus."""

from loquet.core.brief.kinds.screen import Screen
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need, NeedKind

SERIAL: tuple[tuple[str, NeedKind], ...] = (
    ("clock", "serial clock"),
    ("data", "serial out"),
    ("reset", "output"),
    ("data or command", "output"),
    ("select", "output"),
)
SYNCS = ("pixel clock", "line sync", "frame sync", "enable")


def needs(thing: Screen, ask: Asking) -> list[Need]:
    """Lines of its bus, and its backlight."""
    match thing.bus:
        case "two-wire":
            return []
        case "one-way serial":
            bus = thing.role()
            found = [
                ask.need(
                    name,
                    kind,
                    f"{thing.name} {name}",
                    ask.way(8, 2 + i),
                    bus=bus if kind.startswith("serial") else "",
                )
                for i, (name, kind) in enumerate(SERIAL)
            ]
            return [*found, backlight(thing, ask, 8)]
        case "parallel colour":
            names = [f"colour {i + 1}" for i in range(thing.colour_bits)] + [*SYNCS]
            ways = len(names) + 3
            lines = [
                ask.need(name, "output", f"{thing.name} {name}", ask.way(ways, i + 2))
                for i, name in enumerate(names)
            ]
            return [*lines, backlight(thing, ask, ways)]


def backlight(thing: Screen, ask: Asking, ways: int) -> Need:
    """The backlight, dimmed by a timer."""
    title, at = f"{thing.name} backlight", ask.way(ways, ways - 1)
    return ask.need("backlight", "timer", title, at, rate="dimming", extra=True)


NEEDS = (Screen, needs)
