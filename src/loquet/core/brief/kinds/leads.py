"""Two leads from some supply."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Feed, KitItem, Supply, Thing
from loquet.core.provenance import Source

SOURCE = Source(kind="brief", text="volts of the leads, as the brief says")

UNSAID_MA = 10_000.0
"""What a source is taken to give where nobody has said it: more than a board of ours draws."""


class Leads(Thing):
    """Two soldered leads from a supply that is none of Loquet's; they are the rail themselves."""

    GROUP = "feeds"
    TITLE = "Plus and minus leads"
    WORD = "leads"
    MARK = "plug"
    EDGE = True
    CAUTION = "Mark the plus lead on both ends, and measure it before it is soldered."

    kind: Literal["leads"] = "leads"
    part: PartId = "lead-pads"
    volts: Annotated[float, Field(ge=1, le=24)] = 3.3
    gives_ma: Annotated[
        float | None, Field(ge=1, le=UNSAID_MA, description="what the source behind them gives")
    ] = None

    def bodies(self) -> tuple[Body, ...]:
        """Two pads."""
        return (Body(part=self.part, kinds=("lead pads",), size_mm=(6.0, 3.0)),)

    def feed(self) -> Feed:
        """As the brief says."""
        return Feed(self.volts, self.volts, self.volts, "leads", SOURCE, direct=True)

    def source(self) -> Supply:
        """As the brief says."""
        most = self.gives_ma or UNSAID_MA
        return Supply(self.volts, self.volts, self.volts, "outside", 1, 0, 0.1, most, SOURCE)

    def limit_said(self) -> bool:
        """Where the brief says it."""
        return self.gives_ma is not None

    def kit(self) -> tuple[KitItem, ...]:
        """Its wires."""
        return (
            KitItem(
                "leads and cables",
                "two stranded wires, red and black, each 150 mm",
                1,
                f"leads of {self.name}",
            ),
        )
