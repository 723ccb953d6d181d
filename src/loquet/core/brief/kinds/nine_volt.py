"""A nine-volt block on leads."""

from typing import Literal

from loquet.core.brief.thing import Body, Feed, Lack, Thing
from loquet.core.provenance import Source


class NineVolt(Thing):
    """A nine-volt block on leads."""

    GROUP = "feeds"
    TITLE = "Nine-volt block"
    WORD = "block"
    MARK = "cell"
    CAUTION = (
        "The two snaps of a nine-volt block touch one another easily: keep loose blocks capped, "
        "and take it out before soldering."
    )

    kind: Literal["nine-volt"] = "nine-volt"

    def bodies(self) -> tuple[Body, ...]:
        """The block."""
        return (Body(size_mm=(48.5, 26.5)),)

    def feed(self) -> Feed:
        """The rail behind its regulator."""
        source = Source(kind="common practice", text="regulated to 3.3 V from 6 to 9.6 V")
        return Feed(3.3, 3.3, 3.3, "a nine-volt block", source)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A sign that it runs low."""
        way = "Let the firmware measure its own supply and show it on the screen or the light."
        return (Lack("There is no low-battery sign.", way),)
