"""The header of a host computer."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class HostHeader(Thing):
    """The header or the spring pins by which a host computer sits on the board."""

    GROUP = "ports"
    TITLE = "Host header"
    WORD = "host header"
    MARK = "header"

    kind: Literal["host-header"] = "host-header"
    ways: Annotated[int, Field(ge=2, le=40)] = 40

    def bodies(self) -> tuple[Body, ...]:
        """Two rows at 2.54 mm."""
        return (Body(size_mm=(2.54 * -(-self.ways // 2), 5.08)),)
