"""What a meter tells about the pins of a part: where to put its leads, and what to expect."""

from loquet.core.parts.part import Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.plain.frozen import Frozen

CONTACTS = frozenset({"button"})  # parts that are one contact and nothing else
SHORT, OPEN = "below 1 Ω", "open"
PRESSED = "below 200 Ω while pressed, else open"
NO_SHORT = "above 100 Ω, and the same or more with the leads exchanged: never a short"


class Probe(Frozen):
    """One measurement: both pins by number and name, and what to expect."""

    first: str
    second: str
    expect: str


def probes_of(part: Part) -> tuple[Probe, ...]:
    """All measurements of a part, the surest first: joined legs, contacts, the resistances of a
    stick, supply against ground.
    """
    names = part.pin_names
    rows = [
        Probe(first=titled(a, names), second=titled(b, names), expect=f"{SHORT}, pressed or not")
        for a, b, *_ in part.joined
    ]
    by_name: dict[str, list[str]] = {}
    for number, name in names.items():
        by_name.setdefault(name, []).append(number)

    def between(one: str, other: str, expect: str) -> list[Probe]:
        if one not in by_name or other not in by_name:
            return []
        a, b = by_name[one][0], by_name[other][-1]
        return [Probe(first=titled(a, names), second=titled(b, names), expect=expect)]

    if part.kind in CONTACTS:
        a, b = part.pad(ONE), part.pad(OTHER)
        rows.append(Probe(first=f"pin {a}", second=f"pin {b}", expect=PRESSED))
    rows += between("press", "common", PRESSED)
    if part.kind == "resistive stick":
        rows += tracks(part)
    elif "supply" in by_name:
        rows += between("supply", "ground", NO_SHORT)
    return tuple(rows)


def tracks(part: Part) -> list[Probe]:
    """A resistive stick: each track from end to end, and each wiper against one end."""
    names, found = part.pin_names, []
    order = list(names.items())
    for index, (number, name) in enumerate(order):
        if name not in ("x", "y"):
            continue
        ends = [
            row for row in order[max(0, index - 1) : index + 2] if row[1] in ("supply", "ground")
        ]
        if len(ends) == 2:
            (low, _), (high, _) = ends
            steady = "5 to 20 kΩ, and steady while the stick moves"
            found.append(Probe(first=titled(low, names), second=titled(high, names), expect=steady))
        if ends:
            moving = "about half of that at rest, towards nothing and all of it at the ends"
            found.append(
                Probe(first=titled(number, names), second=titled(ends[0][0], names), expect=moving)
            )
    return found


def screen_probes(module: ScreenModule) -> tuple[Probe, ...]:
    """A screen module: which pin is ground shows at the minus side of any capacitor on it; supply
    against ground is no short; bus lines have their pull-ups or none.
    """
    numbers = {name: f"pin {index + 1} ({name})" for index, name in enumerate(module.pins)}
    rows = [
        Probe(
            first=numbers["ground"],
            second="the frame of the module, or minus of its largest capacitor",
            expect=SHORT,
        ),
        Probe(first=numbers["supply"], second=numbers["ground"], expect=NO_SHORT),
    ]
    rows += [
        Probe(
            first=numbers[line],
            second=numbers["supply"],
            expect=f"2 to 10 kΩ where pull-ups are on it, else {OPEN}",
        )
        for line in ("clock", "data")
        if line in numbers and module.bus == "two-wire"
    ]
    return tuple(rows)


def titled(number: str, names: dict[str, str]) -> str:
    """`pin 3 (ground)`."""
    return f"pin {number} ({names[number]})" if number in names else f"pin {number}"
