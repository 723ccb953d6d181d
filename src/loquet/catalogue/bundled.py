"""The bundled catalogue: parts, screens, package bodies, board houses."""

import tomllib
from functools import cache
from importlib import resources
from typing import Any

from loquet.core.ordering.house import House
from loquet.core.parts import Part, PartError
from loquet.core.parts.part import Body, Drawn, GullWings, NoLeads, TwoEnds
from loquet.core.parts.screen import ScreenModule

PART_FILES = ("parts", "controls", "reading")
BODIES: dict[str, type[TwoEnds | GullWings | NoLeads | Drawn]] = {
    "two-ends": TwoEnds,
    "gull-wings": GullWings,
    "no-leads": NoLeads,
    "drawn": Drawn,
}


@cache
def table(name: str) -> dict[str, Any]:
    """A data file as plain values."""
    return tomllib.loads(
        resources.files("loquet.catalogue").joinpath("data", f"{name}.toml").read_text("utf-8")
    )


@cache
def parts() -> dict[str, Part]:
    """All bundled parts by id, in file order."""
    return {
        row["id"]: Part.model_validate(row) for name in PART_FILES for row in table(name)["part"]
    }


@cache
def screens() -> dict[str, ScreenModule]:
    """All bundled screen modules by id."""
    return {row["id"]: ScreenModule.model_validate(row) for row in table("screens")["screen"]}


@cache
def houses() -> dict[str, House]:
    """The simulated board houses by id."""
    return {row["id"]: House.model_validate(row) for row in table("houses")["house"]}


@cache
def package_bodies() -> dict[str, tuple[str, Body]]:
    """Package code and body by the two letters that chip names carry (package, pin count)."""
    found: dict[str, tuple[str, Body]] = {}
    for row in table("packages")["package"]:
        body = BODIES[row["body"]["family"]].model_validate(row["body"])
        found[row["letters"]] = (row["code"], body)
    return found


def supply_limits_mv(family: str) -> tuple[int, int] | None:
    """Lowest and highest supply of a chip family in millivolts, or None where unknown (from memory of data sheets)."""
    limits = table("supply")["families"].get(family)
    return (limits[0], limits[1]) if limits else None


def part(part_id: str) -> Part:
    """The part of that id; raises PartError."""
    found = parts().get(part_id)
    if found is None:
        raise PartError(
            part_id, "is not in the catalogue", f"Known parts: {', '.join(sorted(parts()))}."
        )
    return found


def package_body(code: str) -> Body:
    """The body of a package code such as LQFP48; raises KeyError."""
    return next(body for name, body in package_bodies().values() if name == code)
