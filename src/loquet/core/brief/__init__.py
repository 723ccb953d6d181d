"""The brief: what the hands touch, the outline, the power source, and how many by when."""

from loquet.core.brief.model import (
    Brief,
    Button,
    Buzzer,
    CellPair,
    ChipChoice,
    FixingHole,
    Light,
    PolygonOutline,
    PowerSwitch,
    ProgrammingPort,
    RoundedRectangle,
    Screen,
)
from loquet.core.brief.reading import read_brief
from loquet.core.brief.sense import BriefError

__all__ = [
    "Brief",
    "BriefError",
    "Button",
    "Buzzer",
    "CellPair",
    "ChipChoice",
    "FixingHole",
    "Light",
    "PolygonOutline",
    "PowerSwitch",
    "ProgrammingPort",
    "RoundedRectangle",
    "Screen",
    "read_brief",
]
