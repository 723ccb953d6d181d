"""A slide or a thumb-wheel."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Axis, Body, FilterHz, Service, Worked


class Slider(Worked):
    """A slide or a thumb-wheel (its part says which), for a level that stays where it is put."""

    GROUP = "controls"
    TITLE = "Slider or wheel"
    WORD = "slider"
    MARK = "slide"

    kind: Literal["slider"] = "slider"
    filter_hz: FilterHz = 0.0
    part: PartId = "slider-20"

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("setting it", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """One slide."""
        return (Body(part=self.part, kinds=("slider",)),)

    def axes(self) -> tuple[Axis, ...]:
        """Its level."""
        return (Axis("level", f"{self.name} level", report="level", filter_hz=self.filter_hz),)
