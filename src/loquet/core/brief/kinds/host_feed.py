"""Power from a host over its cable."""

from typing import Literal

from loquet.core.brief.thing import Body, Feed, Thing
from loquet.core.provenance import Source


class HostFeed(Thing):
    """Fed by the host over its cable; the place is the connector."""

    GROUP = "feeds"
    TITLE = "Power from the host"
    WORD = "feed"
    MARK = "plug"
    EDGE = True

    kind: Literal["host-feed"] = "host-feed"

    def bodies(self) -> tuple[Body, ...]:
        """A usual small connector."""
        return (Body(size_mm=(9.0, 7.5)),)

    def feed(self) -> Feed:
        """The rail behind its regulator."""
        source = Source(kind="common practice", text="regulated to 3.3 V from the host's 5 V")
        return Feed(3.3, 3.3, 3.3, "power from a host", source)
