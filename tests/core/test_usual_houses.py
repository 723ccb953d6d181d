"""What a board house or a supplier has that says no more than it must, and what none may say."""

from datetime import date
from typing import Any

import pytest
from pydantic import ValidationError

from loquet.core.ordering.house import House
from loquet.core.ordering.learning import QuoteSeen
from loquet.core.ordering.price_list import Cell, PriceLine, cents_in, whole_in
from loquet.core.ordering.supplier import Supplier

DAY = date(2026, 12, 1)

LEAST: dict[str, Any] = {
    "id": "house/plain",
    "name": "Plain boards",
    "setup_cents": 900,
    "area_cents_dm2": 300,
    "work_days": 5,
    "shipping": [{"name": "parcel", "cents": 600, "days": 3}],
}
# What ordinary houses draw and drill on two layers: common practice, no source.
USUAL: dict[str, Any] = {
    **{"track_um": 150, "gap_um": 150, "hole_um": 300, "ring_um": 150, "edge_um": 300},
    **{"mask_web_um": 100, "mask_grow_um": 50, "hole_gap_um": 250},
    **{"legend_height_um": 1000, "legend_stroke_um": 150},
    **{"smallest_mm": (10, 10), "largest_mm": (400, 300)},
    **{"copper_layers": (2,), "thickness_um": (1600,), "copper_um": (35,)},
    **{"finishes": ("lead-free solder",), "colours": ("green",)},
    **{"currency": "EUR", "euro_each": 1.0, "rate_seen": None, "known": "typed"},
    **{"breaks": ((1, 1.0),), "duty_share": 0, "vat_share": 0, "closed_on": ()},
}
# What it does not offer until it says so: no price, no service.
NOTHING = (
    *("inner_cents_dm2", "piece_cents", "thin_cents", "stencil_cents", "frame_cents"),
    *("stencil_um", "fit_setup_cents", "fit_cents", "fit_days", "score_um", "late_days"),
    *("heavy_least_um", "heavy_cents_dm2", "within_cents"),
)


def test_a_house_that_says_no_more_is_an_ordinary_one() -> None:
    house = House.model_validate(LEAST)
    assert {field: getattr(house, field) for field in USUAL} == USUAL
    assert {field: getattr(house, field) for field in NOTHING} == dict.fromkeys(NOTHING, 0)
    assert (house.finish_cents, house.colour_cents, house.panel_cents) == ({}, {}, {})


@pytest.mark.parametrize(
    ("field", "most"),
    [
        *((("work_days", 400), ("late_days", 400), ("track_um", 20_000), ("stencil_um", 500))),
        *((("score_um", 20_000), ("heavy_least_um", 20_000))),
    ],
)
def test_figures_end_where_no_house_goes(field: str, most: int) -> None:
    assert getattr(House.model_validate({**LEAST, field: most}), field) == most
    with pytest.raises(ValidationError):
        House.model_validate({**LEAST, field: most + 1})


@pytest.mark.parametrize(
    ("field", "wrong"),
    [
        *((("track_um", 9), ("work_days", -1), ("stencil_um", -1), ("setup_cents", -1))),
        *((("smallest_mm", (0, 10)), ("largest_mm", (2001, 10)), ("shipping", []))),
        *((("closed_on", ["02-32"]), ("closed_on", ["13-01"]), ("copper_layers", []))),
        *((("finishes", []), ("breaks", []), ("id", "House Plain"), ("name", ""))),
        *((("duty_share", -0.1), ("currency", "euro"), ("euro_each", 0))),
    ],
)
def test_what_no_house_may_say_is_refused(field: str, wrong: Any) -> None:
    with pytest.raises(ValidationError) as refused:
        House.model_validate({**LEAST, field: wrong})
    assert refused.value.errors()[0]["loc"][0] == field


def test_a_day_on_which_it_is_closed_is_a_month_and_a_day() -> None:
    days = ("12-25", "01-01", "02-29", "10-31")
    assert House.model_validate({**LEAST, "closed_on": days}).closed_on == days


def test_a_supplier_that_says_no_more_ships_free_in_a_week() -> None:
    """Common practice, no source: a week; its cart has the number, the pieces and what they are
    for.
    """
    plain = Supplier(id="supplier/plain", name="Plain parts")
    assert (plain.days, plain.decimal, plain.currency, plain.euro_each) == (7, ".", "EUR", 1.0)
    assert (plain.vat_share, plain.duty_share, plain.shipping, plain.columns) == (0, 0, (), {})
    assert [column.holds for column in plain.cart] == ["order number", "pieces", "references"]
    assert (plain.shipping_cents(100), plain.euro(250)) == (0, 250)
    for field, wrong in (("days", 401), ("days", -1), ("cart", ()), ("vat_share", 1.01)):
        with pytest.raises(ValidationError):
            Supplier.model_validate({"id": "supplier/plain", "name": "x", field: wrong})


QUOTE = {"quantity": 5, "width_mm": 50, "height_mm": 40, "cents": 4000}
LINE = {"supplier": "supplier/plain", "order_number": "A", "breaks": [[1, 5]], "seen_on": DAY}


@pytest.mark.parametrize(
    ("model", "least", "field", "most"),
    [
        (QuoteSeen, QUOTE, "quantity", 100_000),
        (QuoteSeen, QUOTE, "width_mm", 1000),
        (QuoteSeen, QUOTE, "thickness_um", 6400),
        (PriceLine, LINE, "pack", 1_000_000),
        (PriceLine, LINE, "minimum", 10_000_000),
        (PriceLine, LINE, "stock", 2_000_000_000),
        (PriceLine, LINE, "days", 4000),
    ],
)
def test_amounts_end_where_no_offer_goes(
    model: type[QuoteSeen] | type[PriceLine], least: dict[str, Any], field: str, most: int
) -> None:
    assert getattr(model.model_validate({**least, field: most}), field) == most
    with pytest.raises(ValidationError):
        model.model_validate({**least, field: most + 1})


@pytest.mark.parametrize(
    ("model", "least", "field", "most"),
    [
        (House, LEAST, "quotes", 60),
        (House, LEAST, "about", 200),
        (House, LEAST, "asks", 300),
        (House, LEAST, "shipping", 12),
        (PriceLine, LINE, "supplier", 64),
        (PriceLine, LINE, "order_number", 80),
        (PriceLine, LINE, "maker_number", 80),
        (PriceLine, LINE, "part", 300),
        (PriceLine, LINE, "description", 200),
        (PriceLine, LINE, "breaks", 20),
    ],
)
def test_words_and_rows_are_as_many_as_a_page_shows(
    model: type[House] | type[PriceLine], least: dict[str, Any], field: str, most: int
) -> None:
    rows: dict[str, Any] = {"quotes": QUOTE, "shipping": LEAST["shipping"][0], "breaks": [1, 5]}
    one = [rows[field]] if field in rows else "x"
    model.model_validate({**least, field: one * most})
    with pytest.raises(ValidationError):
        model.model_validate({**least, field: one * (most + 1)})


def test_what_cannot_be_read_is_shown_by_its_first_thirty_characters() -> None:
    long = "9" * 40
    for text, said in (("z" * 40, "is no number"), (long, "cannot be")):
        with pytest.raises(Cell) as odd:
            whole_in(text, "stock", ".")
        assert odd.value.problem == f"'{text[:30]}' {said}"
    with pytest.raises(Cell) as odd:
        cents_in("y" * 40, ".", "price 1")
    assert odd.value.problem == f"'{'y' * 30}' is no price"
