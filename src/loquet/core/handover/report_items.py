"""Items of a USB HID report descriptor (HID 1.11, section 6.2.2): writing them, reading them back,
and a linter of our own.
"""

from dataclasses import dataclass

MAIN, GLOBAL, LOCAL = 0, 1, 2
NAMES = {
    (MAIN, 0x8): "Input",
    (MAIN, 0xA): "Collection",
    (MAIN, 0xC): "End Collection",
    (GLOBAL, 0x0): "Usage Page",
    (GLOBAL, 0x1): "Logical Minimum",
    (GLOBAL, 0x2): "Logical Maximum",
    (GLOBAL, 0x3): "Physical Minimum",
    (GLOBAL, 0x4): "Physical Maximum",
    (GLOBAL, 0x5): "Unit Exponent",
    (GLOBAL, 0x6): "Unit",
    (GLOBAL, 0x7): "Report Size",
    (GLOBAL, 0x8): "Report ID",
    (GLOBAL, 0x9): "Report Count",
    (LOCAL, 0x0): "Usage",
    (LOCAL, 0x1): "Usage Minimum",
    (LOCAL, 0x2): "Usage Maximum",
}
CODES = {name: key for key, name in NAMES.items()}
SIGNED = ("Logical Minimum", "Logical Maximum", "Physical Minimum", "Physical Maximum")
DATA_VARIABLE, DATA_ARRAY, CONSTANT, NULL_STATE = 0x02, 0x00, 0x03, 0x40


@dataclass(frozen=True)
class Item:
    """A short item: its name, its value, and words for the listing."""

    name: str
    value: int
    words: str = ""


class ItemFault(Exception):
    """Bytes that are no short items."""


def encode(item: Item) -> bytes:
    """An item as bytes, as short as its value allows; a value that is signed gets room for its sign
    (255 takes two bytes).
    """
    kind, tag = CODES[item.name]
    if item.name == "End Collection":
        return bytes([tag << 4 | kind << 2])
    signed = item.name in SIGNED
    for size, code in ((1, 1), (2, 2), (4, 3)):
        low, high = (
            (-(1 << (8 * size - 1)), (1 << (8 * size - 1)) - 1)
            if signed
            else (0, (1 << (8 * size)) - 1)
        )
        if low <= item.value <= high:
            return bytes([tag << 4 | kind << 2 | code]) + item.value.to_bytes(
                size, "little", signed=signed
            )
    raise ItemFault(f"{item.name} {item.value} does not fit four bytes")


def decode(data: bytes) -> list[Item]:
    """Bytes as items; raises ItemFault for long items, unknown tags and cut ends."""
    items, place = [], 0
    while place < len(data):
        head = data[place]
        size = (0, 1, 2, 4)[head & 3]
        key = (head >> 2 & 3, head >> 4)
        if key not in NAMES or place + 1 + size > len(data):
            raise ItemFault(f"byte {place} starts no item that is known here")
        name = NAMES[key]
        items.append(
            Item(
                name,
                int.from_bytes(data[place + 1 : place + 1 + size], "little", signed=name in SIGNED),
            )
        )
        place += 1 + size
    return items


def lint(data: bytes) -> list[str]:
    """What is wrong with a descriptor, in sentences; empty where nothing is.

    Looks for what readers let pass: unbalanced collections, ranges wider than their field, usages
    that do not match the count, reports that are no whole bytes, missing pages.
    """
    try:
        items = decode(data)
    except ItemFault as fault:
        return [f"{fault}."]
    faults: list[str] = []
    state = {
        "Usage Page": 0,
        "Logical Minimum": 0,
        "Logical Maximum": 0,
        "Report Size": 0,
        "Report Count": 0,
    }
    usages: list[int] = []
    low: int | None = None
    high: int | None = None
    depth = bits = 0
    for item in items:
        match item.name:
            case "Usage":
                usages.append(item.value)
            case "Usage Minimum":
                low = item.value
            case "Usage Maximum":
                high = item.value
            case "Collection":
                depth += 1
                faults += [] if usages else ["A collection has no usage."]
                usages, low, high = [], None, None
            case "End Collection":
                depth -= 1
                faults += ["A collection ends that never began."] if depth < 0 else []
            case "Input":
                bits += state["Report Size"] * state["Report Count"]
                faults += input_faults(item.value, state, usages, low, high) + (
                    [] if depth else ["An input stands outside all collections."]
                )
                usages, low, high = [], None, None
            case _:
                state[item.name] = item.value
    faults += [f"{depth} collections are never ended."] if depth > 0 else []
    return faults + (
        [f"The report is {bits} bits long, which are no whole bytes."] if bits % 8 else []
    )


def input_faults(
    flags: int, state: dict[str, int], usages: list[int], low: int | None, high: int | None
) -> list[str]:
    """Faults of one input."""
    size, count = state["Report Size"], state["Report Count"]
    if size == 0 or count == 0:
        return ["An input has no size or no count."]
    if flags & 1:
        return []
    minimum, maximum = state["Logical Minimum"], state["Logical Maximum"]
    floor, ceiling = (
        (-(1 << (size - 1)), (1 << (size - 1)) - 1) if minimum < 0 else (0, (1 << size) - 1)
    )
    faults = [] if state["Usage Page"] else ["An input has no usage page."]
    if maximum < minimum:
        faults.append(f"A logical range runs from {minimum} to {maximum}.")
    elif minimum < floor or maximum > ceiling:
        faults.append(f"A logical range of {minimum} to {maximum} does not fit {size} bits.")
    if (low is None) != (high is None):
        faults.append("A usage range has only one end.")
    elif low is not None and high is not None:
        if high < low:
            faults.append(f"A usage range runs from {low} to {high}.")
        elif flags & 2 and high - low + 1 != count:
            faults.append(f"A usage range of {high - low + 1} stands for {count} fields.")
        elif not flags & 2 and high - low != maximum - minimum:
            faults.append(
                f"A usage range of {high - low + 1} stands for {maximum - minimum + 1} array"
                " values."
            )
    elif not usages:
        faults.append("An input has no usage.")
    elif flags & 2 and len(usages) != count:
        faults.append(f"{len(usages)} usages stand for {count} fields.")
    return faults
