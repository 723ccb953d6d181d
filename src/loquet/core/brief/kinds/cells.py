"""AA or AAA cells in holders."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Feed, KitItem, Lack, Service, Supply, Thing
from loquet.core.provenance import Source
from loquet.core.quantities.lengths import nm_from_mm

HOLDERS = {"AAA": ("holder-aaa-surface", 13.0), "AA": ("holder-aa-surface", 17.0)}
STANDARD = "1.5 V nominal, 0.9 V end point, 1.65 V highest open circuit; from memory"
HOLDS = {"AAA": (1000.0, 0.25, 300.0), "AA": (2500.0, 0.15, 600.0)}
DESIGNATION = {"AAA": "LR03", "AA": "LR6"}


class Cells(Thing):
    """One to four AA or AAA cells in series, each in its holder; the place is the middle of all of
    them.
    """

    GROUP = "feeds"
    TITLE = "AA or AAA cells"
    WORD = "cell"
    MARK = "cell"

    kind: Literal["cells"] = "cells"
    size: Literal["AAA", "AA"] = "AAA"
    count: Annotated[int, Field(ge=1, le=4)] = 2

    @property
    def CAUTION(self) -> str:  # type: ignore[override] # noqa: N802
        """The usual caution."""
        many = {1: "An", 2: "Two", 3: "Three", 4: "Four"}[self.count]
        return (
            f"{many} {self.size} cell{'s' if self.count > 1 else ''} can heat a short circuit"
            " enough to burn: do not mix old and new cells, and take them out before soldering."
        )

    def service(self) -> Service:
        """Reached with the shell open."""
        return Service("changing the cells", closed=False)

    def bodies(self) -> tuple[Body, ...]:
        """Holders side by side, each turned round against the one before."""
        part, pitch = HOLDERS[self.size]
        step = nm_from_mm(pitch)
        return tuple(
            Body(
                str(i + 1),
                part,
                ("cell holder",),
                0,
                (self.count - 1) * step // 2 - i * step,
                180 * (i % 2),
            )
            for i in range(self.count)
        )

    def feed(self) -> Feed:
        """The sum of the cells, by IEC 60086-2."""
        source = f"IEC 60086-2 cell {DESIGNATION[self.size]}: {STANDARD}"
        return Feed(
            empty_v=self.count * 0.9,
            usual_v=self.count * 1.5,
            fresh_v=self.count * 1.65,
            words=f"{self.count} {self.size} cell{'s' if self.count > 1 else ''}",
            source=Source(kind="standard", text=source),
            direct=True,
        )

    def source(self) -> Supply:
        """The sum of the cells; what they hold and their inner resistance are from memory."""
        n = self.count
        holds, ohm, most = HOLDS[self.size]
        source = Source(
            kind="standard",
            text=(
                f"IEC 60086-2 cell {DESIGNATION[self.size]}: {STANDARD}; {holds:g} mAh and {ohm:g}"
                " ohm a cell from memory"
            ),
        )
        return Supply(0.9 * n, 1.5 * n, 1.65 * n, "alkaline", n, holds, ohm * n, most, source)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A sign that they run low."""
        way = "Let the firmware measure its own supply and show it on the screen or the light."
        return (Lack("There is no low-battery sign.", way),)

    def kit(self) -> tuple[KitItem, ...]:
        """Its cells."""
        return (
            KitItem(
                "power", f"{self.size} cell, alkaline, 1.5 V", self.count, f"feeds {self.name}"
            ),
        )
