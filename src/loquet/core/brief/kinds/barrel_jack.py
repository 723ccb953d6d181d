"""A barrel jack."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Feed, Thing
from loquet.core.provenance import Source


class BarrelJack(Thing):
    """A barrel jack for a mains adapter."""

    GROUP = "feeds"
    TITLE = "Barrel jack"
    WORD = "jack"
    MARK = "plug"
    EDGE = True
    CAUTION = (
        "A mains adapter must be one that is approved where it is used; local codes come first. "
        "Check its polarity with a meter before it is plugged in."
    )

    kind: Literal["barrel-jack"] = "barrel-jack"
    adapter_v: Annotated[float, Field(ge=3, le=24)] = 5.0

    def bodies(self) -> tuple[Body, ...]:
        """A jack of 5.5 mm."""
        return (Body(size_mm=(9.0, 14.0)),)

    def feed(self) -> Feed:
        """The rail behind its regulator."""
        source = Source(kind="common practice", text="regulated to 3.3 V from the adapter")
        return Feed(3.3, 3.3, 3.3, "a barrel jack", source)
