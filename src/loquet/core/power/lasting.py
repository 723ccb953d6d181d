"""How long a source holds its rail."""

from collections.abc import Mapping

from loquet.core.plain.frozen import Frozen
from loquet.core.power.budget import Made
from loquet.core.power.choosing import drawing
from loquet.core.power.discharge import Load, rundown


class Path(Frozen):
    """A part through which a source is emptied: its reference, what it is for, its current in mA
    as seen at the source, its share, and how long the source would last without it (h).
    """

    ref: str
    words: str
    ma: float
    share: float
    hours_without: float


class Lasting(Frozen):
    """How long a source lasts in a mode (h), what share of what it holds is used, the mean current
    at the source and what it loses by itself (mA), the volts at which the device stops, what a
    cell of its kind gives of its capacity at that current, and the paths.
    """

    source: str
    mode: str
    hours: float
    share: float
    mean_ma: float
    lost_ma: float
    stops_v: float
    usable: float
    paths: tuple[Path, ...]


def before_v(made: Made) -> float:
    """The usual volts of what a rail is made of."""
    if made.supply:
        return made.supply.usual_v
    return made.parent.usual_v if made.parent else made.rail.usual_v


def run_hours(made: Made, mode: str, lowest_v: Mapping[str, float]) -> float:
    """Hours until the rail can no longer be held, by the model of the cell."""
    assert made.supply is not None
    return rundown(made.supply, source_load(made, mode), stops_v(made, lowest_v)).hours


def source_load(made: Made, mode: str) -> Load:
    """The current of the source over its volts."""
    load = made.load.of(mode)
    if made.taken:
        return drawing(made.taken, load)
    return lambda volts: volts * 0 + load


def stops_v(made: Made, lowest_v: Mapping[str, float]) -> float:
    """The source's volts at which the device stops: where the converter does, or where a brain on a
    direct rail does.
    """
    assert made.supply is not None
    if made.taken:
        return made.taken.stops_v
    return max(made.supply.empty_v, lowest_v.get(made.rail.name, 0.0))


def peak_at_source(made: Made) -> float:
    """The highest current that a source, or the rail before it, has to give, in mA: with everything
    on, at its lowest usable volts.
    """
    if made.taken is None:
        return made.load.peak
    lowest = made.supply.empty_v if made.supply else before_v(made)
    return made.input_ma("peak", max(made.taken.stops_v, lowest))
