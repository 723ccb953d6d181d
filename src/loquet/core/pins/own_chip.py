"""A user's own chip or module: its table of pads read from CSV or JSON, and made into a chip that
can be planned like any other.
"""

import csv
import io
import json
import re

from pydantic import ValidationError

from loquet.core.brief import BriefError, OwnPad, PinTable
from loquet.core.parts import AlternateFunction, Chip, ChipPin, Part, PartError, PinKind

COLUMNS = ("pad", "port", "can")
FUNCTION = re.compile(r"^([a-z][a-z0-9_]{0,15})\.([a-z0-9_]{1,15})(@[A-Za-z0-9 ]{1,12})?$")
PLAIN_WORDS = ("input", "output", "supply", "gives", "ground", "reset", "boot", "wake", "5v")
LARGEST_BYTES = 200_000
WAYS = (
    "Write input, output, supply, gives, ground, reset, boot, wake, 5v, or a function such as"
    " adc.in0, i2c1.scl or tim2.ch1@AF1."
)


def read_pin_table(data: bytes, name: str, module: bool = True) -> PinTable:
    """A table from CSV (columns pad, port, can; abilities parted by spaces) or JSON; raises
    BriefError with the line.
    """
    if len(data) > LARGEST_BYTES:
        raise BriefError(
            "the pin table",
            f"is {len(data) // 1000} kB large",
            "A table holds at most 300 pads; check that this is the right file.",
        )
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BriefError(
            f"the pin table, byte {error.start}", "is not UTF-8 text", "Save the file as UTF-8."
        ) from None
    if text.lstrip().startswith("{"):
        return from_json(text)
    pads = from_csv(text)
    try:
        return PinTable(name=name, module=module, pads=tuple(pads))
    except ValidationError as error:
        raise BriefError(
            "the pin table", error.errors()[0]["msg"], "Give at least two pads."
        ) from None


def from_json(text: str) -> PinTable:
    """The table as the brief itself holds it."""
    try:
        table = PinTable.model_validate_json(text)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        raise BriefError(
            f"the pin table, {'.'.join(str(s) for s in first['loc']) or 'start'}",
            first["msg"],
            "See docs/file-formats.md for the table.",
        ) from None
    except (json.JSONDecodeError, RecursionError):
        raise BriefError(
            "the pin table", "is not JSON", "Mend it, or save the table as CSV."
        ) from None
    for index, pad in enumerate(table.pads):
        check_abilities(pad.can, f"pads[{index}]")
    check_twice([(f"pads[{i}]", pad.pad) for i, pad in enumerate(table.pads)])
    return table


def from_csv(text: str) -> list[OwnPad]:
    """Rows of pads; every fault names its line."""
    reader = csv.reader(io.StringIO(text, newline=""), strict=True)
    pads: list[OwnPad] = []
    places: list[tuple[str, str]] = []
    try:
        header = [cell.strip().lower() for cell in next(reader, [])]
        if header != list(COLUMNS):
            raise BriefError(
                "the pin table, line 1",
                f"has the columns {', '.join(header)[:60] or 'none'}",
                "Give the columns pad, port, can.",
            )
        for row in reader:
            place = f"the pin table, line {reader.line_num}"
            if not any(cell.strip() for cell in row):
                continue
            if len(row) != 3:
                raise BriefError(
                    place,
                    f"has {len(row)} columns",
                    "Give pad, port, can; abilities are parted by spaces.",
                )
            can = tuple(row[2].split())
            check_abilities(can, place)
            pads.append(own_pad(row[0].strip(), row[1].strip(), can, place))
            places.append((place, row[0].strip()))
    except csv.Error as error:
        raise BriefError(
            f"the pin table, line {reader.line_num}",
            f"is not CSV ({error})",
            "Save it as CSV with commas.",
        ) from None
    check_twice(places)
    return pads


def own_pad(pad: str, port: str, can: tuple[str, ...], place: str) -> OwnPad:
    """One row as a value."""
    try:
        return OwnPad(pad=pad, port=port, can=can)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        raise BriefError(
            place,
            f"{first['loc'][0]}: {first['msg']}",
            "Use letters, digits, dots and hyphens, 12 at most.",
        ) from None


def check_abilities(can: tuple[str, ...], place: str) -> None:
    """Every ability is a known word or a function."""
    for word in can:
        if word.lower() not in PLAIN_WORDS and not FUNCTION.match(
            word.lower() if "@" not in word else word
        ):
            raise BriefError(place, f"has the ability '{word[:30]}', which is not understood", WAYS)


def check_twice(places: list[tuple[str, str]]) -> None:
    """No pad stands twice."""
    seen: dict[str, str] = {}
    for place, pad in places:
        if pad in seen:
            raise BriefError(
                place, f"gives pad '{pad}' again ({seen[pad]} has it)", "Give each pad one row."
            )
        seen[pad] = place


def chip_of_table(table: PinTable) -> Chip:
    """The table as a chip; what nobody wrote down stays unknown."""
    return Chip(
        name=table.name,
        family="own",
        package="module" if table.module else "own package",
        pins=tuple(pin_of(pad) for pad in table.pads),
        module=table.module,
        pins_from="own table",
        uncovered=(
            "comes from a table of pads, for which there is no land pattern; Plan its pins here; a"
            " board needs a chip of the open data set."
        ),
        data_source=table.source,
    )


def chip_on(table: PinTable, part: Part) -> Chip:
    """The table as a chip on a land pattern: a pad of the table is the terminal of that name, or
    the pad of that number. Raises PartError for a pad that is on neither.
    """
    chip = chip_of_table(table)
    numbers = {pad: pad for terminal in part.terminals.values() for pad in terminal.pads}
    at = {name: terminal.pads for name, terminal in part.terminals.items()} | {
        pad: (pad,) for pad in numbers
    }
    pins = []
    for pin in chip.pins:
        pads = at.get(pin.number) or at.get(pin.number.lower())
        if pads is None:
            way_out = "Call it in the table as the package does, by function or by number."
            raise PartError(table.package, f"has no pad for '{pin.number}'", way_out)
        pins += [pin.model_copy(update={"number": pad}) for pad in pads]
    return chip.model_copy(update={"package": part.id, "pins": tuple(pins), "uncovered": ""})


def pin_of(pad: OwnPad) -> ChipPin:
    """One pad as a chip pin."""
    words = tuple(word.lower() for word in pad.can)
    kind: PinKind = (
        "port"
        if "input" in words or "output" in words or any("." in word for word in words)
        else "unused"
    )
    for fixed in ("supply", "gives", "ground", "reset"):
        if fixed in words:
            kind = fixed
    one_way = (
        ""
        if ("input" in words) == ("output" in words)
        else ("input" if "input" in words else "output")
    )
    functions = [function_of(word) for word in pad.can if "." in word]
    if "wake" in words:
        functions.append(AlternateFunction(peripheral="wake", signal="wkup", route="fixed"))
    return ChipPin(
        number=pad.pad,
        name=f"{pad.pad} {pad.port}".strip(),
        kind=kind,
        ports=(pad.port or pad.pad,) if kind == "port" else (),
        functions=tuple(functions),
        is_reset=kind == "reset",
        is_boot="boot" in words,
        one_way=one_way,
        five_volt=True if "5v" in words else None,
    )


def function_of(word: str) -> AlternateFunction:
    """`i2c1.scl@AF4` as a function."""
    name, _, route = word.partition("@")
    peripheral, _, signal = name.lower().partition(".")
    return AlternateFunction(peripheral=peripheral, signal=signal, route=route or "fixed")
