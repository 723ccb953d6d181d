"""A part of the shelf, joined by hand."""

import re
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import ANY_KIND, Body, Duty, Fault, OnBus, Thing

LOAD_PF = 10.0
LINES = ("line", "to chip", "from chip")
FIXED = ("supply", "ground", "open", "clock", "data", *LINES)
NET = re.compile(r"^@[A-Z][A-Z0-9_]{0,23}$")
MOST = 200


class ShelfPart(Thing):
    """Any part of the shelf in its own right: each of its terminals goes to the supply, to ground,
    to the brain, to the two-wire bus, or to a net that it shares with other such parts. What is not
    said goes where such terminals go.

    `joins` are rows of `terminal = where`; a pair is two nets that end in `_PLUS` and `_MINUS`.
    """

    GROUP = "own"
    TITLE = "Part from the shelf"
    WORD = "part"
    MARK = "box"
    DUTY = Duty(1.0, 1.0, 1.0, "as long as its rail is on; what it takes asleep its part may say")

    kind: Literal["shelf-part"] = "shelf-part"
    part: PartId = ""
    joins: Annotated[
        str,
        Field(
            max_length=16_000,
            description=(
                "terminal = where, with semicolons between: supply, ground, open, line, to chip,"
                " from chip, clock, data, or @NET of one's own"
            ),
        ),
    ] = ""
    address: Annotated[int, Field(ge=0, le=119, description="on two wires; 0 is not known")] = 0

    def bodies(self) -> tuple[Body, ...]:
        """The part itself."""
        return (Body(part=self.part, kinds=(ANY_KIND,), size_mm=(8.0, 8.0)),)

    def rows(self) -> tuple[str, ...]:
        """The rows of what is joined."""
        return tuple(row.strip() for row in re.split(r"[;\n]", self.joins) if row.strip())

    def joined(self) -> dict[str, str]:
        """Where each terminal goes that was said."""
        pairs = (row.rsplit("=", 1) for row in self.rows() if "=" in row)
        return {pair[0].strip(): pair[1].strip() for pair in pairs}

    def asked_lines(self) -> dict[str, str]:
        """Terminals that go to the brain, and how."""
        return {name: where for name, where in self.joined().items() if where in LINES}

    def on_bus(self) -> OnBus | None:
        """A load like that of a sensor, where both its lines are on the bus."""
        there = set(self.joined().values())
        return OnBus(self.address, LOAD_PF) if {"clock", "data"} <= there else None

    def faults(self) -> tuple[Fault, ...]:
        """Rows that cannot be read, terminals said twice, places that there are not."""
        names = [row.rsplit("=", 1)[0].strip() for row in self.rows()]
        way = "Write terminal = where, with semicolons between."
        for row, name in zip(self.rows(), names, strict=True):
            where = row.rsplit("=", 1)[-1].strip()
            if "=" not in row or not name:
                return (Fault("joins", f"has '{row[:40]}', which joins nothing", way),)
            if names.count(name) > 1:
                return (Fault("joins", f"names {name[:40]} twice", "Say it once."),)
            if where not in FIXED and not NET.match(where):
                others = f"One of {', '.join(FIXED)}, or a net of one's own such as @HUB_PLUS."
                return (Fault("joins", f"sends {name[:40]} to '{where[:30]}'", others),)
        if len(names) > MOST:
            return (Fault("joins", f"has {len(names)} rows", f"Take at most {MOST}."),)
        return ()
