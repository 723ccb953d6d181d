"""Which way between a source and its rail is taken, and why."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.brief import Supply
from loquet.core.power.converting import Conversion
from loquet.core.power.currents import Currents
from loquet.core.power.discharge import Load, rundown

LONGER = 1.15


@dataclass(frozen=True)
class Choice:
    """A way that can be taken, how long the source lasts with it (hours in play; nothing for an
    outside source), and why it is the one.
    """

    conversion: Conversion
    hours: float | None
    reason: str = ""


def hours_of(supply: Supply, conversion: Conversion, load_ma: float) -> float | None:
    """Hours until the rail can no longer be held; nothing for a source that never runs empty, or a
    load of nothing.
    """
    if supply.stays or load_ma <= 0:
        return None
    return rundown(supply, drawing(conversion, load_ma), conversion.stops_v).hours


def drawing(conversion: Conversion, load_ma: float) -> Load:
    """The source's current in mA for volts at its terminals."""

    def load(volts: NDArray[np.float64]) -> NDArray[np.float64]:
        return conversion.draws_ma(volts, load_ma)

    return load


def own_first(found: tuple[Conversion, ...]) -> list[Conversion]:
    """Ways that fit; where a part of one's own can, those that ship with Loquet and do the same are
    left out, but for one that a person chose.
    """
    own = {c.way.name for c in found if c.fits and c.own}
    return [c for c in found if c.fits and (c.own or c.chosen or c.way.name not in own)]


def best(supply: Supply, found: tuple[Conversion, ...], load: Currents) -> Choice | None:
    """The way that Loquet takes: one that a person chose, or of an outside source the cheapest that
    fits, of a store the cheapest that lasts nearly as long as the longest.

    Nearly as long is within 15 %: a coil and its room want a reason.
    """
    fitting = sorted(own_first(found), key=lambda c: c.price_cents)
    if not fitting:
        return None
    for found_one in fitting:
        if found_one.chosen:
            hours = hours_of(supply, found_one, load.play)
            return Choice(found_one, hours, "chosen for this project")
    rows = [(c, hours_of(supply, c, load.play)) for c in fitting]
    longest = max((hours or 0.0) for _, hours in rows)
    if not longest:
        first = fitting[0]
        return Choice(first, None, f"the cheapest that fits, {first.heat_mw:.0f} mW of heat")
    for conversion, hours in rows:
        if (hours or 0.0) * LONGER >= longest:
            if hours == longest:
                return Choice(conversion, hours, f"lasts longest, {hours:.1f} h in play")
            words = (
                f"lasts {hours or 0:.1f} h of {longest:.1f} h at most, and is the cheapest that"
                " does nearly as well"
            )
            return Choice(conversion, hours, words)
    return None


def taken_of(
    supply: Supply, found: tuple[Conversion, ...], load: Currents, wish: str
) -> Conversion | None:
    """What a person chose, as far as it fits, or else what Loquet takes."""
    if wish != "auto":
        fitting = sorted(own_first(found), key=lambda c: (not c.chosen, c.price_cents))
        return next((c for c in fitting if c.way.name == wish), None)
    choice = best(supply, found, load)
    return choice.conversion if choice else None
