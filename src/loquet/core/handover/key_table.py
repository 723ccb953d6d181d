"""The one table of keys that map, header, report and button test share: number, place in the
report, wiring.
"""

import re

from loquet.core.brief import Brief, Key, keys_of
from loquet.core.pins import PinPlan
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.plain.frozen import Frozen


class KeyRow(Frozen):
    """A key: its number from 0 in the order of the brief, what it is in the report, and how it is
    wired.

    `report` is `button N` (from 1), `hat up`, `key CODE`, `modifier N` (from 0), or `none`. `row`
    and `column` count from 0; `place` counts the lines of an expander, register or ladder. `pin` is
    the chip pin where it has one of its own.
    """

    number: int
    id: str
    name: str = ""
    title: str
    report: str
    scheme: str
    pin: str = ""
    port: str = ""
    row: int | None = None
    column: int | None = None
    place: int | None = None


FIRST_KEY_USAGE, POWER_KEY_USAGE, FIRST_MODIFIER = 0x04, 0x66, 0xE0


def to_ground(brief: Brief, row: KeyRow) -> bool:
    """Whether a key with a pin of its own closes to ground: all do without pull-down resistors, and
    a power button, which wakes the chip, always does.
    """
    power = {key.id for key in keys_of(brief) if key.duty == "power"}
    return brief.button_reading != "pull-down-resistors" or row.id in power


def key_table(brief: Brief, plan: PinPlan) -> tuple[KeyRow, ...]:
    """All keys in the order of the brief."""
    wiring = wiring_of(brief)
    hat = hat_of(brief)
    rows, button = [], 0
    for number, key in enumerate(keys_of(brief)):
        if key.duty == "power":
            report = "none"
        elif brief.role == "usb-keyboard":
            report = key_words(key.sends or usual_usage(number))
        elif key.pad and key.pad == hat and key.direction != "press":
            report = f"hat {key.direction}"
        else:
            button += 1
            report = f"button {button}"
        rows.append(key_row(number, key, report, wiring, plan))
    return tuple(rows)


def usual_usage(number: int) -> int:
    """What a key sends where nobody said: letters on, past the power key, which would put the host
    to sleep (HID usage tables, page 0x07).
    """
    usage = FIRST_KEY_USAGE + number
    return usage if usage < POWER_KEY_USAGE else usage + 2


def key_words(usage: int) -> str:
    """`modifier 0` for the eight modifiers, which have bits of their own, `key 0x04` for others."""
    if FIRST_MODIFIER <= usage < FIRST_MODIFIER + 8:
        return f"modifier {usage - FIRST_MODIFIER}"
    return f"key 0x{usage:02x}"


def key_row(number: int, key: Key, report: str, wiring: KeyWiring, plan: PinPlan) -> KeyRow:
    """One key with its wiring."""
    own, cell = plan.of(key.id), wiring.cell(key.id)
    return KeyRow(
        number=number,
        id=key.id,
        name=macro(key.thing if key.id == key.role and not key.direction else key.id),
        title=key.title,
        report=report,
        scheme="one pin each" if own else wiring.scheme,
        pin=own.pin if own else "",
        port=own.port if own else "",
        row=cell[0] if cell else None,
        column=cell[1] if cell else None,
        place=wiring.listed.index(key.id) if key.id in wiring.listed else None,
    )


def hat_of(brief: Brief) -> str:
    """The pad that becomes the hat of a controller's report: the first one."""
    return next((key.pad for key in keys_of(brief) if key.pad), "")


def macro(text: str) -> str:
    """A name that the C preprocessor takes."""
    found = re.sub(r"[^A-Z0-9]+", "_", text.upper()).strip("_")
    return f"_{found}" if found[:1].isdigit() else found
