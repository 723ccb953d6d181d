"""Whether the lists agree with the design: bare board netlist, parts, places, pin map."""

import re

from loquet.core.board.copper import FAR, BoardView
from loquet.core.geometry import Bar
from loquet.core.pins import PinPlan
from loquet.core.proof.agreement import Fault, fault
from loquet.core.proof.table_reader import Contact

TURN = "Turn anticlockwise, seen from the near side (deg)"


def compare_netlist(view: BoardView, contacts: list[Contact]) -> list[Fault]:
    """Every pad and via once, with its net, place, hole and side."""
    wanted: dict[tuple[str, str, int, int, int, str], str] = {}
    for copper in (*view.pads, *view.wiring):
        if copper.kind == "track" or isinstance(copper.shape, Bar):
            continue
        access = "A00" if len(copper.sides) == 2 else ("A02" if FAR in copper.sides else "A01")
        key = (
            copper.ref[:6] or "VIA",
            copper.pad[:4],
            copper.shape.x // 1000,
            copper.shape.y // 1000,
            copper.drill_nm // 1000,
            access,
        )
        wanted[key] = copper.net
    for hole in view.holes:
        if not hole.plated:
            wanted["", "", hole.x // 1000, hole.y // 1000, hole.d // 1000, "A00"] = ""
    found = {(c.ref, c.pad, c.x_um, c.y_um, c.hole_um, c.access): c.net for c in contacts}
    faults = []
    for key, net in wanted.items():
        if found.get(key) != net:
            faults.append(
                fault(
                    "netlist.ipc",
                    net,
                    key[2] * 1000,
                    key[3] * 1000,
                    f"{key[0]} {key[1]} of {net or 'no net'} is missing or changed",
                )
            )
    for key in found.keys() - wanted.keys():
        faults.append(
            fault(
                "netlist.ipc",
                found[key],
                key[2] * 1000,
                key[3] * 1000,
                f"{key[0]} {key[1]} is not in the design",
            )
        )
    return faults


def compare_lists(
    view: BoardView, parts: list[dict[str, str]], places: list[dict[str, str]]
) -> list[Fault]:
    """Every part that is fitted stands once in both lists, with its value, side, place and turn; in
    the parts list once more for each part it sits in.
    """
    fitted = {c.ref: c for c in view.circuit.components if not c.bare}
    listed = [ref for row in parts for ref in row.get("Where", "").split()]
    faults = [
        fault("parts.csv", "", 0, 0, f"{ref} stands {listed.count(ref)} times")
        for ref, component in fitted.items()
        if listed.count(ref) != 1 + len(component.sits_in)
    ]
    faults += [
        fault("parts.csv", "", 0, 0, f"{ref} is not in the design")
        for ref in set(listed) - fitted.keys()
    ]
    for row in parts:
        refs = row.get("Where", "").split()
        if row.get("Count per board") != str(len(refs)):
            faults.append(
                fault(
                    "parts.csv",
                    "",
                    0,
                    0,
                    f"item {row.get('Item')} counts {row.get('Count per board')} for {len(refs)}"
                    " parts",
                )
            )
        for ref in refs:
            if ref in fitted and row.get("Value") not in ("", fitted[ref].value):
                faults.append(
                    fault(
                        "parts.csv",
                        "",
                        0,
                        0,
                        f"{ref} has the value {row.get('Value')}, designed is {fitted[ref].value}",
                    )
                )
    return faults + compare_places(view, set(fitted), places)


def compare_places(view: BoardView, fitted: set[str], places: list[dict[str, str]]) -> list[Fault]:
    """Side, place and turn of every fitted part."""
    faults = []
    seen: set[str] = set()
    for row in places:
        ref = row.get("Where", "")
        if ref not in fitted or ref in seen:
            faults.append(
                fault("places.csv", "", 0, 0, f"{ref} is not in the design, or stands twice")
            )
            continue
        seen.add(ref)
        seat = view.seats[ref]
        wanted = (
            "far" if seat.far else "near",
            f"{seat.x / 1e6:.3f}",
            f"{seat.y / 1e6:.3f}",
            str(seat.turn_deg),
        )
        found = tuple(
            row.get(name, "") for name in ("Board side", "Middle X (mm)", "Middle Y (mm)", TURN)
        )
        if wanted != found:
            faults.append(
                fault(
                    "places.csv",
                    "",
                    seat.x,
                    seat.y,
                    f"{ref} stands at {' '.join(found)}, designed is {' '.join(wanted)}",
                )
            )
    return faults + [
        fault("places.csv", "", 0, 0, f"{ref} is missing") for ref in sorted(fitted - seen)
    ]


PORT_NAMES = (
    re.compile(r"^P([A-Z])0*(\d+)$"),
    re.compile(r"^P(\d)\.0*(\d+)$"),
    re.compile(r"^(GPIO)(\d+)$"),
)


def in_header(port: str) -> str:
    """A port pin as a header has it, letter or number and bit: `PA08` as `A 8`, `GPIO5` as `0 5`; a
    pad of another name as it is.
    """
    for pattern in PORT_NAMES:
        found = pattern.match(port)
        if found:
            return f"{'0' if found[1] == 'GPIO' else found[1]} {found[2]}"
    return port


def compare_pins(plan: PinPlan, header: str, path: str) -> list[Fault]:
    """The pin map in a header against the plan."""
    ports = dict(re.findall(r"^#define (\w+)_PORT '?([A-Z]|\d)'?$", header, re.M))
    bits = dict(re.findall(r"^#define (\w+)_BIT (\d+)$", header, re.M))
    pads = dict(re.findall(r'^#define (\w+)_PAD "([^"]*)"$', header, re.M))
    faults = []
    for row in plan.assignments:
        name = re.sub(r"[^A-Z0-9]+", "_", row.signal.upper()).strip("_")
        found = pads.get(name) or f"{ports.get(name, '?')} {bits.get(name, '?')}"
        if found != in_header(row.port):
            faults.append(
                fault(
                    path.removeprefix("firmware/"),
                    row.net,
                    0,
                    0,
                    f"{row.title} ({row.net}) is mapped to {found}, planned is {row.port}",
                )
            )
    return faults
