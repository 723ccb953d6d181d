"""Land patterns by formula against published ones, for sixteen packages; all from memory of the
named papers.

Published patterns of one package differ among themselves, so that copper is compared: at least 0.6
of what both pads cover together is covered by both.
"""

from itertools import combinations

import pytest
import shapely

from loquet.catalogue.bundled import part, parts
from loquet.core.geometry import Box, Round, polygon_of
from loquet.core.parts.ipc import (
    CHIP_LARGE,
    CHIP_SMALL,
    GULL_COARSE,
    GULL_FINE,
    NO_LEAD,
    Fillets,
    land,
)
from loquet.core.parts.part import PACKAGE
from loquet.core.parts.patterns import extent, pattern_of

Span = tuple[float, float]
PUBLISHED: dict[str, tuple[str, Span, float]] = {
    # part or package: (paper, from and to along the lead from the axis in mm, width of a pad in mm)
    "resistor-1608": ("IPC-SM-782A, 0603: Z 2.80, G 0.60, X 1.00", (0.30, 1.40), 1.00),
    "capacitor-2012": ("IPC-SM-782A, 0805: Z 3.20, G 0.60, X 1.50", (0.30, 1.60), 1.50),
    "capacitor-3216": ("IPC-SM-782A, 1206: Z 4.40, G 1.20, X 1.80", (0.60, 2.20), 1.80),
    "transistor-npn-sot23": ("chip maker's drawing DBZ0003A: 1.3 x 0.6 at 2.1", (0.40, 1.70), 0.60),
    "regulator-linear-low": ("chip maker's drawing DBV0005A: 1.1 x 0.6 at 2.6", (0.75, 1.85), 0.60),
    "bus-sensor-6": ("chip maker's drawing DBV0006A: 1.1 x 0.6 at 2.6", (0.75, 1.85), 0.60),
    "regulator-linear-high": (
        "chip maker's drawing DCY0004A: 2.15 x 0.95 at 5.8",
        (1.825, 3.975),
        0.95,
    ),
    "amplifier-class-d": ("chip maker's drawing D0008A: 1.55 x 0.6 at 5.4", (1.925, 3.475), 0.60),
    "gauge-8": ("chip maker's drawing DGK0008A: 1.4 x 0.45 at 4.4", (1.50, 2.90), 0.45),
    "converter-4": ("chip maker's drawing DGS0010A: 1.45 x 0.3 at 4.4", (1.475, 2.925), 0.30),
    "expander-8": ("chip maker's drawing PW0016A: 1.5 x 0.45 at 5.8", (2.15, 3.65), 0.45),
    "TSSOP20": ("chip maker's drawing PW0020A: 1.5 x 0.45 at 5.8", (2.15, 3.65), 0.45),
    "LQFP32": ("maker's recommended footprint: 9.70 / 7.30, 0.50 wide", (3.65, 4.85), 0.50),
    "LQFP48": ("maker's recommended footprint: 9.70 / 7.30, 0.30 wide", (3.65, 4.85), 0.30),
    "LQFP64": ("maker's recommended footprint: 12.70 / 10.30, 0.30 wide", (5.15, 6.35), 0.30),
    "QFN48": ("chip maker's drawing RGZ0048A: 0.6 x 0.24 at 6.8", (3.10, 3.70), 0.24),
}
PITCHES = {
    # JEDEC MS-026, MO-153, MO-187, MS-012, MO-178, TO-236, TO-261
    **{"LQFP32": 0.8, "LQFP48": 0.5, "LQFP64": 0.5, "TSSOP20": 0.65, "expander-8": 0.65},
    **{"gauge-8": 0.65, "converter-4": 0.5, "amplifier-class-d": 1.27, "QFN48": 0.5},
    **{"regulator-linear-low": 0.95, "bus-sensor-6": 0.95},
}


def boxes(name: str) -> dict[str, Box]:
    """The rectangular pads of a part or a package by number."""
    body = part(name).body
    return {p.number: p.shape for p in pattern_of(body).pads if isinstance(p.shape, Box)}


@pytest.mark.parametrize("name", PUBLISHED)
def test_a_pattern_covers_what_published_ones_cover(name: str) -> None:
    _, (start, end), wide = PUBLISHED[name]
    pad = boxes(name)["1"]
    middle = abs(pad.x) / 1e6
    long, across = (pad.w / 1e6, pad.h / 1e6)
    mine = (middle - long / 2, middle + long / 2)
    shared = max(0.0, min(end, mine[1]) - max(start, mine[0])) * min(wide, across)
    covered = (end - start) * wide + long * across - shared
    assert shared / covered >= 0.6, (mine, across)


@pytest.mark.parametrize("name", PITCHES)
def test_pads_stand_at_the_pitch_of_the_outline(name: str) -> None:
    one, two = (boxes(name)[number] for number in ("1", "2"))
    assert (one.x, abs(one.y - two.y) / 1e6) == (two.x, pytest.approx(PITCHES[name], abs=1e-6))


@pytest.mark.parametrize(
    ("goals", "limits", "expected"),
    [
        # Z = Lmin + 2 toe + root of (tolerance of L, 0.05, 0.05); G from Smax narrowed to its own
        # root of squares; X from W.
        # 1608: 1.5 + 0.7 + 0.2121; 1.4 - (0.7 - 0.4062) / 2 + 0.1 - 0.4123; 0.7 + 0.2121
        (CHIP_LARGE, ((1.5, 1.7), (0.15, 0.40), (0.7, 0.9)), (2.4121, 0.9408, 0.9121)),
        # 1005: 0.95 + 0.4 + 0.1225; 0.75 - 0.1 + 0.1 - 0.3082; 0.45 + 0.1225
        (CHIP_SMALL, ((0.95, 1.05), (0.15, 0.35), (0.45, 0.55)), (1.4725, 0.4418, 0.5725)),
        # SOIC of JEDEC MS-012: 5.8 + 0.7 + 0.4062; 5.4 - 0.4231 - 0.7 - 1.2957; 0.31 + 0.06 +
        # 0.2121
        (GULL_COARSE, ((5.8, 6.2), (0.40, 1.27), (0.31, 0.51)), (6.9062, 2.9812, 0.5821)),
        # LQFP of 7 x 7 mm, JEDEC MS-026: 8.8 + 0.7 + 0.4062; 8.3 - 0.2085 - 0.7 - 0.5874; 0.17 -
        # 0.04 + 0.1225
        (GULL_FINE, ((8.8, 9.2), (0.45, 0.75), (0.17, 0.27)), (9.9062, 6.8042, 0.2525)),
        # QFN of 4 x 4 mm, JEDEC MO-220: 3.9 + 0.6 + 0.2121; 3.5 - 0.1268 - 0.3536; 0.18 - 0.08 +
        # 0.1393
        (NO_LEAD, ((3.9, 4.1), (0.3, 0.5), (0.18, 0.30)), (4.7121, 3.0197, 0.2393)),
    ],
    ids=["1608", "1005", "SOIC", "LQFP", "QFN"],
)
def test_lands_worked_out_by_hand(
    goals: Fillets,
    limits: tuple[tuple[float, float], tuple[float, float], tuple[float, float]],
    expected: tuple[float, float, float],
) -> None:
    """IPC-7351B section 3.1.5, with its nominal fillets (from memory of its tables)."""
    found = land(*limits, goals)
    assert (found.z, found.g, found.x) == pytest.approx(expected, abs=2e-4)
    assert found.length == pytest.approx((expected[0] - expected[1]) / 2, abs=2e-4)
    assert found.middle == pytest.approx((expected[0] + expected[1]) / 4, abs=2e-4)


def test_a_courtyard_is_a_quarter_of_a_millimetre_beyond_all_copper() -> None:
    """IPC-7351B, nominal: 0.25 mm beyond pads and body; 0.15 mm for parts below 1.6 mm."""
    pattern = pattern_of(part("resistor-1608").body)
    boxes = [extent(pad.shape) for pad in pattern.pads]
    left, right = min(b[0] for b in boxes), max(b[2] for b in boxes)
    bottom, top = min(b[1] for b in boxes), max(b[3] for b in boxes)
    yard = pattern.courtyard
    assert (yard.x, yard.y) == (0, 0)
    assert yard.w == pytest.approx(right - left + 500_000, abs=10_000)
    assert yard.h == pytest.approx(max(top - bottom, 800_000) + 500_000, abs=110_000)


def test_what_a_round_pad_covers() -> None:
    assert extent(Round(10_000, 20_000, 4_000)) == (8_000, 18_000, 12_000, 22_000)


@pytest.mark.parametrize(
    "name",
    ["transistor-npn-sot23", "regulator-linear-low", "guard-array", "charger-linear", "pd-sink-6"],
)
def test_leads_are_numbered_anticlockwise_as_seen_from_above(name: str) -> None:
    """JEDEC TO-236 and MO-178: lead 1 top left, then down, then up the other side."""
    pads = sorted(pattern_of(part(name).body).pads, key=lambda p: int(p.number))
    spots = [(p.shape.x, p.shape.y) for p in pads]  # type: ignore[union-attr]
    assert spots[0][0] < 0 < spots[0][1]
    assert len({x for x, _ in spots}) == 2
    turns = sum(
        x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(spots, spots[1:] + spots[:1], strict=True)
    )
    assert turns > 0


@pytest.mark.parametrize("code", [p.id for p in parts().values() if p.kind == PACKAGE])
def test_contacts_of_a_package_lie_apart_and_along_its_body(code: str) -> None:
    """No two contacts touch (IPC-7351B asks for a gap), and rows run along the longer side of a
    body, as any drawing shows them.
    """
    pattern = pattern_of(part(code).body)
    pads: dict[str, list[shapely.Polygon]] = {}
    for pad in pattern.pads:
        pads.setdefault(pad.number, []).append(polygon_of(pad.shape))
    areas = [shapely.union_all(own) for own in pads.values()]
    for one, other in combinations(areas, 2):
        assert one.distance(other) > 90_000
    left, bottom, right, top = shapely.union_all(areas).bounds
    assert (right - left > top - bottom) == (pattern.body.w > pattern.body.h) or abs(
        pattern.body.w - pattern.body.h
    ) < 0.35 * max(pattern.body.w, pattern.body.h)
