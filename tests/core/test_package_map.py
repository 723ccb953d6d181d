"""Where pins lie about a package without a land pattern, by hand: balls at 0.5 mm, two rows, four
sides (JEDEC counting, pin 1 top left).
"""

from typing import Any

import pytest

from loquet.core.geometry import Seat
from loquet.core.parts import Chip, ChipPin
from loquet.core.pins.package_map import balls, four_sides, package_places, two_rows

HERE = Seat(10_000_000, 20_000_000)


def chip(package: str, names: list[str], **more: Any) -> Chip:
    pins = tuple(ChipPin(number=name, name=name, kind="unused") for name in names)
    return Chip(name="x", family="f", package=package, pins=pins, data_source="made up", **more)


def test_balls_by_letter_from_the_top_and_number_from_the_left() -> None:
    """I, O, Q, S, X and Z are no rows; AA follows Y as the 21st."""
    assert balls(["A1", "A2", "B1"]) == {
        "A1": (-0.25, 0.25),
        "A2": (0.25, 0.25),
        "B1": (-0.25, -0.25),
    }
    rows = balls(["H1", "J1", "Y1", "AA1"])
    assert rows["H1"][1] - rows["J1"][1] == pytest.approx(0.5)
    assert rows["Y1"][1] - rows["AA1"][1] == pytest.approx(0.5)
    assert balls(["A1", "A10"])["A10"] == (2.25, 0)


def test_two_rows_down_the_left_and_up_the_right() -> None:
    assert two_rows(["1", "2", "3", "4"], 2.54, 17.78) == {
        "1": (-8.89, 1.27),
        "2": (-8.89, -1.27),
        "3": (8.89, -1.27),
        "4": (8.89, 1.27),
    }
    odd = two_rows(["1", "2", "3"], 1.0, 4.0)
    assert odd == {"1": (-2, 0.5), "2": (-2, -0.5), "3": (2, 0.5)}


def test_four_sides_against_the_clock_from_the_top_left() -> None:
    assert four_sides([str(n) for n in range(1, 9)]) == {
        "1": (-0.75, 0.25),
        "2": (-0.75, -0.25),
        "3": (-0.25, -0.75),
        "4": (0.25, -0.75),
        "5": (0.75, -0.25),
        "6": (0.75, 0.25),
        "7": (0.25, 0.75),
        "8": (-0.25, 0.75),
    }


@pytest.mark.parametrize(
    ("made", "first"),
    [
        (chip("DIP8", ["1", "2", "3", "4"]), (10 - 8.89, 20 + 1.27)),
        (chip("anything", ["1", "2", "3", "4"], module=True), (10 - 8.89, 20 + 1.27)),
        (chip("TSSOP20", ["1", "2", "3", "4"]), (10 - 3.2, 20 + 0.325)),
        (chip("SO8", ["1", "2", "3", "4"]), (10 - 3.2, 20 + 0.325)),
        (chip("WLCSP", ["A1", "A2", "B1", "B2"]), (10 - 0.25, 20 + 0.25)),
        (chip("LQFP", ["1", "2", "3", "4"]), (10 - 0.5, 20)),
        (chip("LQFP", ["A1", "2", "3", "4"]), (10 - 0.5, 20)),
    ],
)
def test_each_package_has_its_shape(made: Chip, first: tuple[float, float]) -> None:
    x, y = package_places(made, HERE)[made.pins[0].number]
    assert (x / 1e6, y / 1e6) == (pytest.approx(first[0]), pytest.approx(first[1]))


def test_places_turn_with_the_seat() -> None:
    """By 90 degrees what was left of the middle lies below it."""
    turned = package_places(chip("DIP8", ["1", "2", "3", "4"]), Seat(0, 0, 90))
    assert turned["1"] == (-1_270_000, -8_890_000)
