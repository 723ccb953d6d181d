"""The brief: boards, the things on them, what is wished, and how many by when.

May import geometry, plain, provenance and quantities alone: a brief knows no catalogue.
"""

from loquet.core.brief.keys import Key, keys_of
from loquet.core.brief.model import (
    MAIN,
    Board,
    Brief,
    Shelf,
    Shell,
)
from loquet.core.brief.outline_shapes import Outline, PolygonOutline, RoundedRectangle
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.pin_table import OwnPad, PinTable
from loquet.core.brief.places import Place
from loquet.core.brief.reading import brief_from_plain, read_brief
from loquet.core.brief.reading_keys import Chords, KeyScheme, SchemeName
from loquet.core.brief.sense import BriefError, plain_name
from loquet.core.brief.thing import (
    Axis,
    Body,
    Contact,
    Display,
    Duty,
    Feed,
    Lack,
    OnBus,
    Supply,
    Thing,
)

__all__ = [
    "MAIN",
    "Axis",
    "Board",
    "Body",
    "Brief",
    "BriefError",
    "Chords",
    "Contact",
    "Display",
    "Duty",
    "Feed",
    "Key",
    "KeyScheme",
    "Lack",
    "OnBus",
    "Outline",
    "OwnPad",
    "PinTable",
    "Place",
    "PolygonOutline",
    "RoundedRectangle",
    "SchemeName",
    "Shelf",
    "Shell",
    "Supply",
    "Thing",
    "brief_from_plain",
    "keys_of",
    "outline_polygon_mm",
    "plain_name",
    "read_brief",
]
