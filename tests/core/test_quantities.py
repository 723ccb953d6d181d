import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquet.core.quantities.lengths import mm_from_nm, nm_from_mm, show_mm
from loquet.core.quantities.preferred import at_least, at_most, nearest
from loquet.core.quantities.shown import show_si


@given(st.integers(-300_000, 300_000))
def test_micrometres_survive_the_way_through_millimetres(micrometres: int) -> None:
    assert nm_from_mm(micrometres / 1000) == micrometres * 1000
    assert mm_from_nm(micrometres * 1000) == micrometres / 1000


@given(st.floats(1e-3, 1e9), st.sampled_from(["E12", "E24", "E96"]))
def test_preferred_values_enclose_what_was_asked(value: float, series: str) -> None:
    low, high, near = at_most(value, series), at_least(value, series), nearest(value, series)
    assert low <= value * (1 + 1e-9)
    assert high >= value * (1 - 1e-9)
    assert near in (low, high)
    step = {"E12": 1.26, "E24": 1.16, "E96": 1.031}[series]
    assert high / low < step or math.isclose(high, low)


@pytest.mark.parametrize("value", [0, -1, math.inf, math.nan])
def test_preferred_values_refuse_what_has_none(value: float) -> None:
    with pytest.raises(ValueError, match="positive"):
        nearest(value)


@pytest.mark.parametrize(
    ("value", "unit", "shown"),
    [
        (4700, "Ω", "4.7 kΩ"),
        (1e-7, "F", "100 nF"),
        (0.025, "A", "25 mA"),
        (0, "V", "0 V"),
        (510, "Ω", "510 Ω"),
        (999_700, "Ω", "1 MΩ"),
        (1e-15, "F", "0.001 pF"),
    ],
)
def test_numbers_are_written_as_the_trade_writes_them(value: float, unit: str, shown: str) -> None:
    assert show_si(value, unit) == shown


def test_lengths_are_shown_to_a_hundredth() -> None:
    assert show_mm(200_000) == "0.20 mm"
