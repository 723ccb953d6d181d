"""Something a maker must fix, look at or know."""

from typing import Any, Literal

from loquet.core.plain.frozen import Frozen
from loquet.core.provenance.working import Working

Severity = Literal["stop", "look", "note"]


class Repair(Frozen):
    """A repair that Loquet can make itself: the words on the button and the edit it stands for."""

    label: str
    edit: dict[str, Any]


class Finding(Frozen):
    """A sentence about named things, what to do, and how it was found.

    `about` holds references such as `control:up`, `net:GND`, `part:U1`; `x_mm`, `y_mm` a place on
    the board. `state` is that of the switched-on device in which it shows.
    """

    rule: str
    severity: Severity
    station: str
    sentence: str
    way_out: str
    about: tuple[str, ...] = ()
    x_mm: float | None = None
    y_mm: float | None = None
    working: Working | None = None
    state: str = ""
    repairs: tuple[Repair, ...] = ()
