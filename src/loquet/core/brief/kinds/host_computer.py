"""A host computer on the board: a small computer that runs programs, reads what the board gives it,
and keeps files.
"""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from loquet.core.brief.places import Compared
from loquet.core.brief.thing import Body, Duty, Feed, KitItem, Thing, only
from loquet.core.provenance import Source

BY_PART = {
    "header": "fellbeck-s40",
    "spring pins": "fellbeck-s40-springs",
    "edge": "fellbeck-s40-edge",
}
OWN_RAIL = Source(kind="brief", text="3.3 V that the host makes for what hangs on it")
FIRST_FIELDS = ("by", "ways")
EDGE_MM, LOGIC_V = 3.5, 3.3


class HostComputer(Thing):
    """A small computer on its header, on spring pins, or in an edge connector, as its part says,
    with the outline that it covers.

    On its own plug it brings a rail of 3.3 V; fed by the board it takes the rail that it names (5
    V) and gives none.
    """

    GROUP = "brains"
    BRAIN = True
    TITLE = "Host computer"
    WORD = "host"
    MARK = "chip"
    FIXED = False
    READY_MADE = True
    HAS_FILES = True
    DUTY = Duty(1.0, 0.5, 0.1, "waits at a half, sleeps at a tenth; from memory")

    kind: Literal["host-computer"] = "host-computer"
    part: Annotated[str, Field(min_length=3, max_length=40)] = "fellbeck-s40"
    table: Annotated[str, Field(max_length=0)] = ""
    compared: Compared = ""
    power: Literal["its own plug", "the board"] = "its own plug"
    draws_ma: Annotated[
        float,
        Field(
            ge=10,
            le=3000,
            description="mA at the most",
            json_schema_extra=only(power=("the board",)),
        ),
    ] = 700.0
    keeps_files: Annotated[
        bool,
        Field(
            title="Writes files",
            description="it writes files while it runs; no: its card is read only",
            json_schema_extra=only(power=("the board",)),
        ),
    ] = True
    width_mm: Annotated[float, Field(ge=10, le=200, description="mm along its contacts")] = 65.0
    height_mm: Annotated[float, Field(ge=10, le=200, description="mm across them")] = 30.0

    @model_validator(mode="before")
    @classmethod
    def of_older_brief(cls, data: Any) -> Any:
        """Briefs that said by what it sits, and by how many ways: the part says it now."""
        if not isinstance(data, dict) or not set(FIRST_FIELDS) & set(data):
            return data
        kept = {key: value for key, value in data.items() if key not in FIRST_FIELDS}
        return {**kept, "part": data.get("part") or BY_PART.get(data.get("by", ""), "fellbeck-s40")}

    def programmed_apart(self) -> str:
        """As such a thing is."""
        return "it starts from its card"

    def compared_with(self) -> str:
        """The drawing named in the brief."""
        return self.compared.strip()

    def bodies(self) -> tuple[Body, ...]:
        """Its contacts, which run from top to bottom 3.5 mm inside its left edge, and what it
        covers.
        """
        beside = round((self.height_mm / 2 - EDGE_MM) * 1e6)
        return (
            Body(part=f"chip:{self.part}", kinds=("chip",)),
            Body(piece="outline", size_mm=(self.height_mm, self.width_mm), dx=beside),
        )

    def feed(self) -> Feed | None:
        """The rail that it brings from its own plug."""
        if self.power == "the board":
            return None
        return Feed(LOGIC_V, LOGIC_V, LOGIC_V, "the host's own rail", OWN_RAIL, False, 500.0)

    def loses_files(self) -> bool:
        """Unless its card is read only."""
        return self.keeps_files

    def logic_v(self) -> float:
        """Its lines live on its own 3.3 V, whatever feeds it."""
        return LOGIC_V

    def current_ma(self) -> float:
        """What it takes from the board."""
        return self.draws_ma if self.power == "the board" else 0.0

    def kit(self) -> tuple[KitItem, ...]:
        """The computer itself, its card, and its own supply."""
        found = [
            KitItem("ports", "host computer Fellbeck S40", 1, f"{self.name}"),
            KitItem("ports", "memory card 16 GB with the system of the host", 1, f"{self.name}"),
        ]
        if self.power == "its own plug":
            found.append(
                KitItem("power", "USB adapter 5 V, 2.5 A, with its lead", 1, f"feeds {self.name}")
            )
        return tuple(found)
