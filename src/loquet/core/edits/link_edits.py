"""Edits of what the device is joined to and shows: links, sensors, lights, crystals."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import Sensor
from loquet.core.brief.links import Link
from loquet.core.brief.places import Name
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.brief_edits import with_brief
from loquet.core.frozen import Frozen


class AddLink(Frozen):
    """Add a port, card or connector."""

    kind: Literal["add-link"] = "add-link"
    link: Link

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Add {self.link.name}"

    def apply(self, design: Design) -> Design:
        """Put it behind the others; names are their own."""
        if any(link.name == self.link.name for link in design.brief.links):
            raise EditRefused(f"There is a {self.link.name} already.", "Give it another name.")
        return with_brief(design, links=(*design.brief.links, self.link))


class RemoveLink(Frozen):
    """Remove a port, card or connector."""

    kind: Literal["remove-link"] = "remove-link"
    name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Remove {self.name}"

    def apply(self, design: Design) -> Design:
        """Take it out."""
        return with_brief(
            design, links=tuple(link for link in design.brief.links if link.name != self.name)
        )


class SetSensors(Frozen):
    """The sensors of the device."""

    kind: Literal["set-sensors"] = "set-sensors"
    sensors: Annotated[tuple[Sensor, ...], Field(max_length=12)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{len(self.sensors)} sensors"

    def apply(self, design: Design) -> Design:
        """Change them."""
        return with_brief(design, sensors=self.sensors)


class SetLights(Frozen):
    """How long a light chain is, and how large a light matrix."""

    kind: Literal["set-lights"] = "set-lights"
    count: int | None = None
    rows: int | None = None
    columns: int | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Size of the lights"

    def apply(self, design: Design) -> Design:
        """Change what is given and there."""
        chain, matrix = design.brief.light_chain, design.brief.light_matrix
        changes: dict[str, object] = {}
        if chain and self.count is not None:
            changes["light_chain"] = {"count": self.count}
        if matrix and (self.rows is not None or self.columns is not None):
            changes["light_matrix"] = {
                "rows": self.rows or matrix.rows,
                "columns": self.columns or matrix.columns,
            }
        return with_brief(design, **changes)


class SetClocks(Frozen):
    """Crystals at the chip: the fast one for exact timing, the slow one for a clock that goes on in sleep."""

    kind: Literal["set-clocks"] = "set-clocks"
    crystal: bool
    clock_crystal: bool

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Crystals"

    def apply(self, design: Design) -> Design:
        """Change both."""
        return with_brief(design, crystal=self.crystal, clock_crystal=self.clock_crystal)
