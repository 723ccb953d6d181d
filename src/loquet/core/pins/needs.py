"""What the brief asks of the chip: one need a signal, with the place it has to reach."""

import re

from loquet.core.brief import Brief
from loquet.core.brief.seats import fixed_seats
from loquet.core.geometry import Seat
from loquet.core.pins.model import Need
from loquet.core.quantities.lengths import nm_from_mm

HEADER_PITCH_MM = 2.54


def net_of_button(name: str) -> str:
    """`all dark` as `BUTTON_ALL_DARK`."""
    return "BUTTON_" + re.sub(r"[^A-Z0-9]+", "_", name.upper()).strip("_")


def needs_of(brief: Brief) -> tuple[Need, ...]:
    """All needs in the order of the brief: buttons, screen, buzzer, light, debug port."""
    seats = fixed_seats(brief)
    needs = [
        Need(f"button:{c.name}", "input", net_of_button(c.name), f"button {c.name}", (seats[f"button:{c.name}"].x, seats[f"button:{c.name}"].y))
        for c in brief.controls
    ]
    if brief.screen:
        needs.append(Need("screen:clock", "two-wire clock", "SCREEN_CLOCK", "screen clock", way(seats["screen"], 4, 2)))
        needs.append(Need("screen:data", "two-wire data", "SCREEN_DATA", "screen data", way(seats["screen"], 4, 3)))
    if brief.buzzer:
        seat = seats.get("buzzer")
        needs.append(Need("buzzer", "timer", "BUZZER_DRIVE", "buzzer", (seat.x, seat.y) if seat else None))
    if brief.light:
        needs.append(Need("light", "output", "LIGHT_DRIVE", "indicator light", (seats["light"].x, seats["light"].y)))
    needs.append(Need("debug:data", "debug data", "DEBUG_DATA", "programming data", way(seats["port"], 5, 3)))
    needs.append(Need("debug:clock", "debug clock", "DEBUG_CLOCK", "programming clock", way(seats["port"], 5, 1)))
    return tuple(needs)


def way(seat: Seat, ways: int, index: int) -> tuple[int, int]:
    """The place of one post of a header, counted from 0."""
    return seat.point(round((index - (ways - 1) / 2) * nm_from_mm(HEADER_PITCH_MM)), 0)
