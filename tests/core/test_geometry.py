import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquet.core.geometry import Bar, Box, Round, Seat, gap_between, polygon_of, turned
from loquet.core.parts.patterns import extent

places = st.integers(-40_000_000, 40_000_000)
sizes = st.integers(100_000, 5_000_000)
turns = st.sampled_from([0, 90, 180, 270])
shapes = st.one_of(
    st.builds(Round, places, places, sizes),
    st.builds(
        Box, places, places, sizes.map(lambda s: s // 2 * 2), sizes.map(lambda s: s // 2 * 2)
    ),
    st.builds(Bar, places, places, places, places, sizes),
)


@given(places, places, turns)
def test_four_quarter_turns_come_home(x: int, y: int, turn: int) -> None:
    for _ in range(4):
        x, y = turned(x, y, turn)
    assert turned(*turned(x, y, turn), 360 - turn) == (x, y)


@given(shapes, shapes, places, places, turns, st.booleans())
def test_a_gap_does_not_change_when_both_are_moved_alike(
    a: object, b: object, x: int, y: int, turn: int, far: bool
) -> None:
    seat = Seat(x, y, turn, far)
    before = gap_between(a, b)  # type: ignore[arg-type]
    after = gap_between(seat.shape(a), seat.shape(b))  # type: ignore[arg-type]
    assert after == pytest.approx(before, abs=1)


@given(shapes, shapes)
def test_exact_gaps_agree_with_polygons(a: object, b: object) -> None:
    exact = gap_between(a, b)  # type: ignore[arg-type]
    drawn = polygon_of(a, 0, 64).distance(polygon_of(b, 0, 64))  # type: ignore[arg-type]
    assert drawn == pytest.approx(max(exact, 0), abs=2_000)


def test_far_parts_are_mirrored_then_turned() -> None:
    seat = Seat(10, 20, 90, far=True)
    assert seat.point(3, 0) == (10, 17)
    assert extent(seat.shape(Box(3, 0, 4, 2))) == (9, 15, 11, 19)
