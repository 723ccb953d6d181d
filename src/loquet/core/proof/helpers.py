"""Keys on expanders, shift registers and ladders, found on the finished netlist as the firmware
will: by address, by place in the chain, by voltage.
"""

from collections.abc import Callable, Iterable, Mapping

from loquet.core.brief.shares import marked
from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.parts import Part
from loquet.core.pins.schemes.ladder import BITS, KEYS_A_LADDER, ladder_windows
from loquet.core.pins.wiring import KeyWiring

Netlist = Mapping[tuple[str, str], str]
Wires = Iterable[tuple[str, str]]
Reach = Callable[[str, Wires], set[str]]


def named_nets(component: Component, part: Part, nets: Netlist) -> dict[str, str]:
    """The nets of a part by the names of its pins, as the files have them."""
    return {
        name: net for pad, name in part.pin_names.items() if (net := nets.get((component.ref, pad)))
    }


def helper_inputs(
    wiring: KeyWiring,
    helpers: list[dict[str, str]],
    on: Mapping[str, str],
    mark: str,
) -> dict[str, str]:
    """The net at which the firmware reads each listed key; a key whose helper is not there has
    none.
    """
    rows: dict[int, dict[str, str]] = {}
    if wiring.scheme.startswith("expander"):
        wide = int(wiring.scheme.split()[1])
        clocks = set(on.values())
        rows = {address_of(row): row for row in helpers if row.get("clock") in clocks}
    else:
        wide, line, index = 8, on.get(marked(mark, "keys:data"), ""), 0
        by_out = {row["out"]: row for row in helpers if "out" in row}
        while line in by_out and index < len(helpers):
            rows[index] = by_out[line]
            line, index = by_out[line].get("in", ""), index + 1
    found = {}
    for place, key in enumerate(wiring.listed):
        net = rows.get(place // wide, {}).get(f"line {place % wide}")
        if net:
            found[key] = net
    return found


def address_of(row: Mapping[str, str]) -> int:
    """The number that an expander's address pins make: a pin at ground is 0."""
    return sum((row.get(f"address {bit}") != GROUND) << bit for bit in range(3))


def ladder_keys(
    wiring: KeyWiring,
    resistors: list[tuple[frozenset[str], float]],
    lines: list[str],
    rail: str,
    wires: list[tuple[str, str]],
    reach: Reach,
) -> set[str]:
    """The keys whose window holds the voltage of their ladder while these nets conduct: a pull-up
    to the rail, and every resistor that reaches ground.
    """
    found = set()
    for index, line in enumerate(lines):
        keys = wiring.listed[index * KEYS_A_LADDER : (index + 1) * KEYS_A_LADDER]
        top = next((ohm for ends, ohm in resistors if ends == {rail, line}), None)
        low = [
            ohm
            for ends, ohm in resistors
            if line in ends
            and rail not in ends
            and GROUND in reach(next(iter(ends - {line})), wires)
        ]
        if top is None or not low:
            continue
        bottom = 0.0 if 0.0 in low else 1 / sum(1 / ohm for ohm in low)
        code = bottom / (bottom + top) * (2**BITS - 1)
        windows = ladder_windows(keys)
        found |= {w.key for w in windows if w.low <= code <= w.high and w.key in keys}
    return found
