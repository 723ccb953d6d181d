"""A converter that makes another rail."""

from typing import Literal

from loquet.core.brief.regulated import ConverterName, RailVolts
from loquet.core.brief.thing import Body, Feed, Thing
from loquet.core.provenance import Source


class Converter(Thing):
    """Another rail, made from the rail that it takes: 5 V for sticks or lights, 1.8 V for a
    sensor.
    """

    GROUP = "feeds"
    TITLE = "Converter to another rail"
    WORD = "converter"
    MARK = "box"
    FIXED = False
    LOWER_FEED = True

    kind: Literal["converter"] = "converter"
    gives_v: RailVolts = 5.0
    converter: ConverterName = "auto"

    def bodies(self) -> tuple[Body, ...]:
        """The room that it takes with its coil and capacitors."""
        return (Body(size_mm=(8.0, 9.0)),)

    def feed(self) -> Feed:
        """Its rail."""
        source = Source(kind="brief", text=f"made to {self.gives_v:g} V")
        v = self.gives_v
        return Feed(v, v, v, "a converter", source)

    def made_by(self) -> str:
        """As was chosen."""
        return self.converter
