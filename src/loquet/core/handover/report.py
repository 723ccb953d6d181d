"""The USB HID report of a device: a controller or a keyboard, from the same table as map and
header.

Usages of the HID usage tables: generic desktop page 0x01 (game pad 0x05, keyboard 0x06, X 0x30, Y
0x31, Z 0x32, Rx 0x33, Ry 0x34, Rz 0x35, slider 0x36, dial 0x37, hat 0x39), key page 0x07, button
page 0x09.
"""

from dataclasses import dataclass

from loquet.core.brief import Brief, keys_of
from loquet.core.handover.key_table import (
    FIRST_MODIFIER,
    hat_of,
    key_table,
    macro,
    usual_usage,
)
from loquet.core.handover.report_items import (
    CONSTANT,
    DATA_ARRAY,
    DATA_VARIABLE,
    NULL_STATE,
    Item,
    encode,
)
from loquet.core.pins import PinPlan

DESKTOP, KEYS, BUTTONS = 0x01, 0x07, 0x09
GAME_PAD, KEYBOARD, HAT, SLIDER, DIAL = 0x05, 0x06, 0x39, 0x36, 0x37
STICK_AXES = ((0x30, 0x31), (0x33, 0x34), (0x40, 0x41))
TRIGGER_AXES = (0x32, 0x35)
AXIS_BITS = 12
AXIS_TOP = 2**AXIS_BITS - 1
KEYS_AT_ONCE = 6


@dataclass(frozen=True)
class Field:
    """A field of the report: name, usage page, usage, bits, how many, least and greatest value."""

    name: str
    page: int
    usage: int
    bits: int
    count: int
    low: int
    high: int


def has_report(brief: Brief) -> bool:
    """Whether the role has a USB report."""
    return brief.role in ("usb-controller", "usb-keyboard")


def fields_of(brief: Brief, plan: PinPlan) -> tuple[Field, ...]:
    """The fields in the order of the report: buttons, hat, axes; or modifiers and key slots."""
    if brief.role == "usb-keyboard":
        sent = [key.sends or usual_usage(index) for index, key in enumerate(keys_of(brief))]
        top = max((usage for usage in sent if usage < FIRST_MODIFIER), default=0)
        return Field("modifiers", KEYS, 0xE0, 1, 8, 0, 1), Field(
            "keys", KEYS, 0, 8, KEYS_AT_ONCE, 0, max(top, 0x65)
        )
    buttons = sum(row.report.startswith("button") for row in key_table(brief, plan))
    found = [Field("buttons", BUTTONS, 1, 1, buttons, 0, 1)] if buttons else []
    if hat_of(brief):
        found.append(Field("hat", DESKTOP, HAT, 4, 1, 0, 7))
    return (*found, *axis_fields(brief))


def axis_fields(brief: Brief) -> list[Field]:
    """One field an axis, 12 bits in 16, and one for what turns without end; axes beyond the usages
    that there are get none.
    """
    found: list[Field] = []
    pairs, pulls = iter(STICK_AXES), iter(TRIGGER_AXES)
    pair: tuple[int, int] | None = None
    for thing in brief.group("controls"):
        for axis in thing.axes():
            match axis.report:
                case "stick x":
                    pair = next(pairs, None)
                    usage = pair[0] if pair else None
                case "stick y":
                    usage = pair[1] if pair else None
                case "trigger":
                    usage = next(pulls, SLIDER)
                case _:
                    usage = SLIDER
            if usage is not None:
                found.append(Field(axis.words, DESKTOP, usage, 16, 1, 0, AXIS_TOP))
        if thing.turns():
            found.append(Field(f"{thing.name} turns", DESKTOP, DIAL, 8, 1, -127, 127))
    return found


def items_of(brief: Brief, plan: PinPlan) -> list[Item]:
    """The whole descriptor as items."""
    usage, words = (
        (KEYBOARD, "keyboard") if brief.role == "usb-keyboard" else (GAME_PAD, "game pad")
    )
    items = [
        Item("Usage Page", DESKTOP, "generic desktop"),
        Item("Usage", usage, words),
        Item("Collection", 1, "application"),
    ]
    bits = 0
    for field in fields_of(brief, plan):
        items += field_items(field)
        bits += field.bits * field.count
        if -bits % 8 and field.name in ("buttons", "hat"):
            items += [
                Item("Report Size", -bits % 8),
                Item("Report Count", 1),
                Item("Input", CONSTANT, "padding"),
            ]
            bits += -bits % 8
        if field.name == "modifiers":
            items += [
                Item("Report Size", 8),
                Item("Report Count", 1),
                Item("Input", CONSTANT, "reserved byte"),
            ]
            bits += 8
    return [*items, Item("End Collection", 0)]


def field_items(field: Field) -> list[Item]:
    """One field; buttons, modifiers and key slots by a range of usages."""
    items = [Item("Usage Page", field.page, field.name)]
    flags = DATA_VARIABLE
    if field.name == "keys":
        items += [Item("Usage Minimum", 0), Item("Usage Maximum", field.high)]
        flags = DATA_ARRAY
    elif field.count > 1:
        items += [
            Item("Usage Minimum", field.usage),
            Item("Usage Maximum", field.usage + field.count - 1),
        ]
    else:
        items.append(Item("Usage", field.usage, field.name))
    if field.name == "hat":
        flags |= NULL_STATE
    if field.low < 0:
        flags |= 0x04
    items += [Item("Logical Minimum", field.low), Item("Logical Maximum", field.high)]
    return [
        *items,
        Item("Report Size", field.bits),
        Item("Report Count", field.count),
        Item("Input", flags, field.name),
    ]


def descriptor_of(brief: Brief, plan: PinPlan) -> bytes:
    """The report descriptor as bytes."""
    return b"".join(encode(item) for item in items_of(brief, plan))


def layout_of(items: list[Item]) -> list[str]:
    """Every input of the report with its first bit, padding and reserved bits included; there is no
    report id.
    """
    lines, bit = [], 0
    now = {"Report Size": 0, "Report Count": 0, "Logical Minimum": 0, "Logical Maximum": 0}
    for item in items:
        if item.name in now:
            now[item.name] = item.value
        elif item.name == "Input":
            size, count = now["Report Size"], now["Report Count"]
            values = (
                ""
                if item.value == CONSTANT
                else f", {now['Logical Minimum']} to {now['Logical Maximum']}"
            )
            lines.append(f"   bit {bit}: {item.words}: {count} x {size} bit{values}")
            bit += size * count
    return [*lines, f"   {bit // 8} bytes, no report id"]


def write_report_c(brief: Brief, plan: PinPlan) -> bytes:
    """The descriptor as a C array, item by item, with the layout of the report above it."""
    name = macro(brief.name)
    lines = [
        (
            f"/* USB report of {brief.name}. Written by Loquet from the pin plan; the order of"
            " buttons is that of pins.h. */"
        ),
        f"#ifndef {name}_REPORT_H",
        f"#define {name}_REPORT_H",
        "#include <stdint.h>",
        "",
    ]
    lines += ["/* Layout, from the first bit on:"]
    lines += layout_of(items_of(brief, plan))
    lines += [f"   {row.report}: {row.title}" for row in key_table(brief, plan)]
    lines += ["*/", f"static const uint8_t {name}_REPORT[] = {{"]
    for item in items_of(brief, plan):
        data = ", ".join(f"0x{byte:02X}" for byte in encode(item))
        value = f" {item.value}" if item.name != "End Collection" else ""
        words = f": {item.words}" if item.words else ""
        lines.append(f"    {data}, /* {item.name}{value}{words} */")
    lines += ["};", f"#define {name}_REPORT_BYTES sizeof({name}_REPORT)", "#endif", ""]
    return "\n".join(lines).encode("ascii")
