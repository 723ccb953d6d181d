"""Connectors, what mates with them, and wires, against what the trade knows of them.

Posts at 2.54 mm, terminals at 5.08 mm and flat cables at 0.5 and 1.0 mm are common practice; the
drawings of plugs are invented, and their figures stand here as those drawings have them. Wire: ASTM
B258, handbook table.
"""

from typing import Any

import pytest

from loquet.catalogue.bundled import parts, roles
from loquet.core.parts.wire import wire, wire_for, wire_working

# first and last pad (x, y, width, height, hole), number of pads, body, height and price (cents)
CONNECTORS: dict[str, tuple[Any, Any, int, tuple[float, float], float, float]] = {
    "posts-4": ((-3.81, 0, 1.7, 1.7, 1.0), (3.81, 0, 1.7, 1.7, 1.0), 4, (10.16, 2.54), 8.5, 12),
    "posts-two-10": (
        (-5.08, 1.27, 1.7, 1.7, 1.0),
        (5.08, -1.27, 1.7, 1.7, 1.0),
        10,
        (12.7, 5.08),
        8.5,
        30,
    ),
    "terminals-3": ((-5.08, 0, 2.6, 2.6, 1.3), (5.08, 0, 2.6, 2.6, 1.3), 3, (15.24, 8.0), 10, 42),
    "edge-5": ((-5.08, 0, 1.6, 7.0, 0), (5.08, 0, 1.6, 7.0, 0), 5, (12.7, 8.0), 0, 0),
    # contacts 0.6 of the pitch wide and 1.3 mm long; two hold-downs 2.1 mm beyond the last contact
    "flat-cable-0.5-10-top": (
        (-2.25, 2.35, 0.3, 1.3, 0),
        (4.35, -0.6, 1.8, 2.2, 0),
        12,
        (10.5, 5.6),
        2.0,
        27,
    ),
    "flat-cable-1.0-6-bottom": (
        (-2.5, 2.35, 0.6, 1.3, 0),
        (4.6, -0.6, 1.8, 2.2, 0),
        8,
        (11.0, 5.6),
        2.0,
        23.4,
    ),
    # posts through the board at 2.0 and 2.5 mm, surface contacts with hold-downs 1.7 mm beyond
    # below that
    "wire-plug-2.0-2": ((-1.0, 0, 1.5, 1.5, 0.85), (1.0, 0, 1.5, 1.5, 0.85), 2, (6.9, 5.5), 6, 10),
    "wire-plug-2.5-3": ((-2.5, 0, 1.5, 1.5, 0.85), (2.5, 0, 1.5, 1.5, 0.85), 3, (9.9, 5.5), 6, 12),
    "wire-plug-1.25-4": (
        (-1.875, 1.8, 0.75, 1.6, 0),
        (3.575, -1.2, 1.2, 1.8, 0),
        6,
        (7.75, 4.25),
        6,
        14,
    ),
    "wire-plug-1.0-2": ((-0.5, 1.8, 0.6, 1.6, 0), (2.2, -1.2, 1.2, 1.8, 0), 4, (5.0, 4.25), 6, 10),
}


@pytest.mark.parametrize("name", CONNECTORS)
def test_a_connector_is_as_its_drawing_has_it(name: str) -> None:
    first, last, count, size, height, price = CONNECTORS[name]
    part = parts()[name]
    pads = part.body.pads  # type: ignore[union-attr]
    for pad, wanted in ((pads[0], first), (pads[-1], last)):
        found = (pad.x_mm, pad.y_mm, pad.w_mm, pad.h_mm, pad.drill_mm)
        assert found == pytest.approx(wanted)
    assert len(pads) == count
    assert [pad.number for pad in pads] == [str(i + 1) for i in range(count)]
    assert part.body.body_mm == pytest.approx(size)  # type: ignore[union-attr]
    assert (part.height_mm, part.price_cents) == pytest.approx((height, price))
    assert part.hand_fitted == (first[4] > 0)


def test_the_sizes_that_a_brief_can_ask_for_are_there() -> None:
    names = set(parts())
    assert {f"posts-{n}" for n in range(2, 43)} <= names
    assert {f"posts-two-{n}" for n in range(4, 62, 2)} <= names
    assert {
        f"flat-cable-{p}-{n}-{s}"
        for p in ("0.5", "1.0")
        for n in range(3, 43)
        for s in ("top", "bottom")
    } <= names
    assert {
        f"wire-plug-{p}-{n}" for p in ("1.0", "1.25", "2.0", "2.5") for n in range(2, 9)
    } <= names
    assert {f"terminals-{n}" for n in range(2, 14)} <= names
    assert {f"edge-{n}" for n in range(3, 43)} <= names
    assert {f"button-carbon-fingers-{d}" for d in (5, 6, 10, 12)} | {
        "button-carbon-fingers"
    } <= names


# gender, matings (USB Type-C 3.8.1.3: 10,000; USB 2.0: 1,500; SD: 10,000; the others usual
# ratings), keyed, latched
MATES = {
    "post row": ("pins", 100, False, False),
    "post rows": ("pins", 100, False, False),
    "header": ("pins", 100, False, False),
    "wire plug": ("pins", 30, True, True),
    "flat-cable connector": ("contacts", 20, False, True),
    "USB-C socket": ("sockets", 10_000, False, False),
    "USB socket": ("sockets", 1_500, True, False),
    "barrel jack": ("sockets", 5_000, False, False),
    "headphone socket": ("sockets", 5_000, False, False),
    "card socket": ("contacts", 10_000, True, True),
    "stick port": ("pins", 500, True, False),
    "edge contacts": ("contacts", 25, False, False),
}


def test_what_mates_and_how_often() -> None:
    mates = {role.name: role.mates for role in roles().role if role.mates}
    found = {kind: (f.gender, f.cycles, f.keyed, f.latch) for kind, f in mates.items()}
    assert found == MATES
    assert (mates["post row"].family, mates["header"].family) == ("square posts", "square posts")
    assert all("source" in f.source or "memory" in f.source for f in mates.values())


# AWG, diameter in mm, resistance in mΩ a metre: handbook table of annealed copper at 20 °C
TABLE = (
    *((30, 0.2546, 338.6), (28, 0.3211, 212.9), (26, 0.4049, 133.9), (24, 0.5106, 84.2)),
    *((22, 0.6438, 52.96), (20, 0.8118, 33.31), (18, 1.0237, 20.95)),
)


@pytest.mark.parametrize(("gauge", "diameter", "mohm_m"), TABLE)
def test_wires_by_their_handbook(gauge: int, diameter: float, mohm_m: float) -> None:
    found = wire(gauge)
    assert found.diameter_mm == pytest.approx(diameter, rel=1e-3)
    assert found.mohm_m == pytest.approx(mohm_m, rel=5e-3)


@pytest.mark.parametrize(
    ("current", "length", "gauge"),
    [
        # 5 A/mm²: 30 AWG (0.0509 mm²) carries 255 mA, 28 (0.0810) 405, 26 (0.1288) 644; over
        # 10 mm the drop is small
        (250, 10, 30),
        (260, 10, 28),
        (400, 10, 28),
        (410, 10, 26),
        # 50 mV there and back: 100 mA over 0.7 m of each wire in 30 AWG lose 47 mV, over 0.8 m 54
        # mV
        (100, 700, 30),
        (100, 800, 28),
        # more than any: the thickest
        (9000, 1000, 18),
    ],
)
def test_the_thinnest_wire_that_carries_a_current(
    current: float, length: float, gauge: int
) -> None:
    assert wire_for(current, length).gauge == gauge


def test_what_is_lost_in_the_wires_of_a_source() -> None:
    """100 mA over 150 mm of 30 AWG, there and back: 2 x 0.15 m x 0.3386 Ω/m x 0.1 A = 10.2 mV."""
    worked = wire_working("cell", 100, 150)
    assert worked.value == pytest.approx(10.16, abs=0.05)
    shown = {row.name: float(row.value) for row in worked.inputs}
    assert shown == pytest.approx({"l": 0.15, "r": 0.3386, "I": 0.1}, rel=5e-3)


def test_the_gauge_of_a_source_follows_from_its_current_first() -> None:
    """600 mA over 20 mm: 26 AWG carries 644 mA."""
    assert "26 AWG" in wire_working("cell", 600, 20).title
