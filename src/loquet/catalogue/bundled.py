"""The bundled catalogue: parts, board houses, suppliers, and what each kind of parts must have."""

import re
import tomllib
from functools import cache
from importlib import resources
from typing import Any

from loquet.core.ordering.house import House
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Part, PartError
from loquet.core.parts.families import formula_parts
from loquet.core.parts.paste import Paste
from loquet.core.shelf.pack import Pack, read_pack
from loquet.core.shelf.role import Roles

PACK_FILES = (
    *("parts", "controls", "reading", "power", "ports", "screens", "packages", "houses", "pastes"),
)


@cache
def table(name: str) -> dict[str, Any]:
    """A data file as plain values."""
    return tomllib.loads(
        resources.files("loquet.catalogue").joinpath("data", f"{name}.toml").read_text("utf-8")
    )


@cache
def larkfield() -> tuple[Pack, ...]:
    """The files of the bundled pack."""
    folder = resources.files("loquet.catalogue").joinpath("packs", "larkfield")
    return tuple(
        read_pack(folder.joinpath(f"{name}.toml").read_bytes(), f"larkfield/{name}.toml")
        for name in PACK_FILES
    )


@cache
def parts() -> dict[str, Part]:
    """All bundled parts by id: those of the pack, in the order of its files, then those that
    follow a formula.
    """
    drawn = (part for pack in larkfield() for part in pack.part)
    return {part.id: part for part in (*drawn, *formula_parts())}


def registered_types() -> bytes:
    """The pack of types whose numbers a body registers, from memory of data sheets."""
    folder = resources.files("loquet.catalogue").joinpath("packs")
    return folder.joinpath("registered-types.toml").read_bytes()


@cache
def roles() -> Roles:
    """What a part must have to serve as its kind."""
    return Roles.model_validate(table("roles"))


@cache
def houses() -> dict[str, House]:
    """The simulated board houses by id."""
    return {house.id: house for pack in larkfield() for house in pack.house}


@cache
def pastes() -> dict[str, Paste]:
    """Solder pastes of the standard by id."""
    return {paste.id: paste for pack in larkfield() for paste in pack.paste}


@cache
def suppliers() -> dict[str, Supplier]:
    """The simulated suppliers of parts by id."""
    return {one.id: one for pack in larkfield() for one in pack.supplier}


def package_by_letters() -> dict[str, str]:
    """Package by the two letters that chip names of the first families carry (package, pin
    count).
    """
    letters: dict[str, str] = table("corrections")["letters"]
    return letters


def supply_limits_mv(family: str) -> tuple[int, int] | None:
    """Lowest and highest supply of a chip family in millivolts, or None where unknown (from memory
    of data sheets).
    """
    limits = table("supply")["families"].get(family)
    return (limits[0], limits[1]) if limits else None


def converter_min_mv(family: str) -> int | None:
    """The least supply of a chip family in millivolts at which its analogue converter works, or
    None where unknown (from memory of data sheets).
    """
    found: int | None = table("supply")["converter"].get(family)
    return found


def part(part_id: str) -> Part:
    """The part of that id; raises PartError."""
    found = parts().get(part_id)
    if found is None:
        raise PartError(
            part_id, "is not in the catalogue", f"Known parts: {', '.join(sorted(parts()))}."
        )
    return found


def corrected_port(name: str, duty: str) -> str:
    """The port pin that resets a chip (duty `reset`), or is sampled at reset (`boot`), where the
    data set does not say it (from memory of data sheets), or nothing.
    """
    ports: dict[str, str] = table("corrections")[duty]
    return next((port for start, port in ports.items() if name.startswith(start)), "")


def usb_of(name: str, what: str) -> str:
    """What is known of a chip's USB, `usb_clock` or `usb_pull_up` (from memory of data sheets);
    `unknown` where nothing is.
    """
    rows: dict[str, str] = table("corrections")[what]
    return next((said for pattern, said in rows.items() if re.match(pattern, name)), "unknown")
