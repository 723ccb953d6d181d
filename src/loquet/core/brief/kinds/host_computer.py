"""A host computer on the board: it brings its own power and reads what it is given."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing

ROWS_MM = {"header": 5.08, "spring pins": 6.0, "edge": 4.0}


class HostComputer(Thing):
    """A small computer that sits on a header, on spring pins, or in an edge connector, with the outline that it covers."""

    GROUP = "brains"
    TITLE = "Host computer"
    WORD = "host"
    MARK = "chip"

    kind: Literal["host-computer"] = "host-computer"
    by: Literal["header", "spring pins", "edge"] = "header"
    ways: Annotated[int, Field(ge=2, le=60)] = 40
    width_mm: Annotated[float, Field(ge=10, le=200)] = 65.0
    height_mm: Annotated[float, Field(ge=10, le=200)] = 30.0

    def bodies(self) -> tuple[Body, ...]:
        """What it covers, with its contacts along the upper long side."""
        across = 2.54 * -(-self.ways // 2)
        contacts = (min(across, self.width_mm), ROWS_MM[self.by])
        up = round((self.height_mm / 2 - contacts[1] / 2) * 1e6)
        return (
            Body(size_mm=(self.width_mm, self.height_mm)),
            Body(piece="contacts", size_mm=contacts, dy=up),
        )
