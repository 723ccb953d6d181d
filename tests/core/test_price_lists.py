"""Price lists of suppliers as they give them out, what a part costs by them, and carts."""

import csv
import io
import random
import time
from datetime import date, timedelta
from math import ceil

import pytest

from loquet.core.buying.kit import kit_key, kit_of
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.ordering.market import Market, Needed, carts_of, number_key
from loquet.core.ordering.offer import Offer, best_of
from loquet.core.ordering.price_list import (
    Decimal,
    ListFault,
    ListRefused,
    PriceLine,
    guessed_columns,
    guessed_decimal,
    read_lines,
    table_in,
)
from loquet.core.ordering.supplier import CartColumn, Supplier
from loquet.core.parts import Part
from loquet.costing import carts, parts_cost
from tests.core.test_shelf import REGULATOR

DAY = date(2026, 11, 30)
LIST = """Order No.;Mfr Part No;Description;Stock;MOQ;Pack;Price 1;Price 100
BK-1;TR-33;"Regulator; 3.3 V";1.200;1;1;0,34;0,29
BK-2;TR-50;Regulator 5 V;;10;5;0,40;
BK-3;;Screw M2;90;1;1;0,02;0,015
"""
COLUMNS = {
    "Order No.": "order number",
    "Mfr Part No": "maker number",
    "Description": "description",
    "Stock": "stock",
    "MOQ": "minimum",
    "Pack": "pack",
    "Price 1": "price 1",
    "Price 100": "price 100",
}


def read(text: str, columns: dict[str, str] = COLUMNS, decimal: Decimal = ",") -> list[object]:
    return list(read_lines(text, "supplier/beck", columns, decimal, DAY))


def lines(text: str = LIST) -> list[PriceLine]:
    found = read(text)
    assert all(isinstance(row, PriceLine) for row in found), found
    return found  # type: ignore[return-value]


def test_a_list_is_read_as_it_stands() -> None:
    headings, rows = table_in(LIST)
    assert guessed_columns(headings) == COLUMNS
    assert guessed_decimal([row[6] for _, row in rows]) == ","
    first, second, third = lines()
    assert (first.order_number, first.maker_number, first.description) == (
        *("BK-1", "TR-33"),
        "Regulator; 3.3 V",
    )
    assert first.stock == 1200
    assert first.breaks == ((1, 34), (100, 29))
    assert (second.stock, second.minimum, second.pack, second.breaks) == (None, 10, 5, ((1, 40),))
    assert third.breaks == ((1, 2), (100, 1.5))
    assert {line.seen_on for line in (first, second, third)} == {DAY}


@pytest.mark.parametrize(
    ("text", "decimal", "cents"),
    [("0.034", ".", 3.4), ("€ 1.234,50", ",", 123_450), ("1,234.5 USD", ".", 123_450)],
)
def test_prices_as_they_are_written(text: str, decimal: Decimal, cents: float) -> None:
    (line,) = read(f'no\tprice\nA\t"{text}"\n', {"no": "order number", "price": "price 1"}, decimal)
    assert isinstance(line, PriceLine)
    assert line.breaks == ((1, pytest.approx(cents)),)


@pytest.mark.parametrize(
    ("row", "column", "words"),
    [
        (";X;;1;1;1;0,1;", "Order No.", "empty"),
        ("A;X;;1;1;1;;", "Price 1", "no price"),
        ("A;X;;1;1;1;cheap;", "Price 1", "'cheap' is no price"),
        ("A;X;;many;1;1;0,1;", "Stock", "'many' is no number"),
        ("A;X;;1;0;1;0,1;", "MOQ", "it is 0"),
        ("A;X;;1;1;1;0,1;;;", "", "10 cells and the list 8"),
        (f"A;{'X' * 81};;1;1;1;0,1;", "Mfr Part No", "81 characters"),
        ("BK-1;X;;1;1;1;0,1;", "Order No.", "stands in line 2 too"),
        ("A;X;;1;1;1;-5;", "Price 1", "cannot be a price"),
    ],
)
def test_a_wrong_line_is_told_with_its_place(row: str, column: str, words: str) -> None:
    found = [one for one in read(f"{LIST}{row}\n") if isinstance(one, ListFault)]
    assert [(fault.line, fault.column) for fault in found] == [(5, column)]
    assert words in found[0].problem
    assert found[0].way_out


def test_columns_must_be_said() -> None:
    def faults(columns: dict[str, str]) -> list[str]:
        return [f.problem for f in read(LIST, columns) if isinstance(f, ListFault)]

    assert faults({"Order No.": "order number"}) == ["no column holds the price"]
    assert faults({"Price 1": "price 1"}) == ["no column holds the order number"]
    both = {"Order No.": "order number", "Price 1": "price 1"}
    assert faults(both) == []
    assert faults({**both, "Pack": "price 1"}) == ["is not the only one for 'price 1'"] * 2
    assert faults({**both, "Nowhere": "pack"}) == ["is not in this list"]
    assert faults({**both, "Pack": "colour"}) == ["cannot hold 'colour'"]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("one column\nA\n", "one column"),
        ("a;a;b\n1;2;3\n", "two columns are called 'a'"),
        ("", "one column"),
        ('no,price\n"' + "x" * 200_000 + '",1\n', "cannot be read"),
    ],
)
def test_no_table_is_refused(text: str, words: str) -> None:
    with pytest.raises(ListRefused, match=words):
        list(table_in(text)[1])


def test_five_thousand_lines_take_no_time() -> None:
    rows = "".join(f"N{i};M{i};part {i};{i};1;1;0,{i % 90 + 10};\n" for i in range(5000))
    began = time.process_time()
    found = read(LIST.splitlines()[0] + "\n" + rows)
    assert time.process_time() - began < 2
    assert len(found) == 5000


def test_mutated_lists_never_crash() -> None:
    chance, worst = random.Random(7), 0.0
    for _ in range(600):
        text = list(LIST)
        for _ in range(chance.randint(1, 12)):
            at = chance.randrange(len(text))
            text[at] = chance.choice(['"', ";", ",", "\n", "\x00", "é", "9", "", "\t", "-"])
        began = time.process_time()
        try:
            read("".join(text))
        except ListRefused as error:
            assert error.way_out
        worst = max(worst, time.process_time() - began)
    assert worst < 0.2


def supplier(**more: object) -> Supplier:
    return Supplier.model_validate({"id": "supplier/beck", "name": "Beck Parts", **more})


def test_a_part_costs_what_the_list_says() -> None:
    """By its maker's number however it is written, by its id where somebody said so, a chip by its
    name; in euro.
    """
    part = Part.model_validate({**REGULATOR.model_dump(mode="json"), "sold_as": ["tr 33"]})
    market = Market.of([supplier(currency="USD", euro_each=0.5, days=9)], lines())
    (offer,) = market.offers(part.id, part)
    assert (offer.supplier, offer.order_number, offer.pieces, offer.days) == (
        *("Beck Parts", "BK-1"),
        *(1200, 9),
    )
    assert offer.breaks == ((1, 17), (100, 14.5))
    assert market.offers("own/other", REGULATOR) == ()
    said = [line.model_copy(update={"part": "own/other"}) for line in lines()[2:]]
    assert len(Market.of([supplier()], said).offers("own/other", REGULATOR)) == 1
    chip = lines()[0].model_copy(update={"maker_number": "STM32-L433 RCT6"})
    assert Market.of([supplier()], [chip]).offers("chip:stm32l433rct6", None)
    nobody = [line.model_copy(update={"supplier": "supplier/gone"}) for line in lines()]
    assert Market.of([supplier()], nobody).offers(part.id, part) == ()
    assert number_key("74HC-595 D/1") == "74hc595d1"


def test_screws_cables_and_the_like_are_bought_by_the_words_of_the_kit(
    small: Design, library: Library
) -> None:
    """A screw at 3 cents each in bags of 20: what the kit wants of it for 4 and for 9 devices, in
    whole bags; nothing of what lies in the drawer.
    """
    lines = kit_of(small, library).lines
    screw = next(line for line in lines if line.what.startswith("screw "))
    each = screw.count // small.brief.quantity
    sells = PriceLine(
        supplier="supplier/beck",
        order_number="BK-9",
        part=kit_key(screw.what),
        pack=20,
        stock=500,
        breaks=((1, 3.0),),
        seen_on=DAY,
    )
    market = Market.of([supplier(shipping=[])], [sells])
    for number in (4, 9):
        bare = parts_cost(small, library, Market(), number)
        cost = parts_cost(small, library, market, number)
        bags = ceil(each * number / 20)
        assert cost.cents["Beck Parts"] == pytest.approx(60.0 * bags)
        assert bare.kit_unpriced - cost.kit_unpriced == 1
        found, nowhere = carts(small, library, market, number)
        (row,) = found[0].rows
        assert (row.order_number, row.pieces, row.references) == ("BK-9", 20 * bags, "kit")
        assert screw.what not in [line.description for line in nowhere]
        assert "kit" in [line.references for line in nowhere]
    there = small.choices.model_copy(update={"kit": {screw.what: "in the drawer"}})
    held = small.model_copy(update={"choices": there})
    assert "Beck Parts" not in parts_cost(held, library, market, 4).cents
    assert parts_cost(held, library, Market(), 4).kit_unpriced == bare.kit_unpriced - 1


def test_packs_least_quantities_and_age() -> None:
    offer = Offer(
        supplier="s", pieces=100, days=3, minimum=10, pack=25, breaks=((1, 4.0), (50, 3.0))
    )
    assert [offer.buys(n) for n in (1, 25, 26, 60)] == [25, 25, 50, 75]
    assert [offer.cents_for(n) for n in (1, 26)] == [100, 150]
    assert Offer(supplier="s", pieces=0, days=1, breaks=((10, 2.0),)).each_cents(3) == 2
    seen = offer.model_copy(update={"seen_on": DAY})
    assert [seen.old(DAY + timedelta(days=n)) for n in (90, 91)] == [False, True]
    assert not offer.old(DAY)
    scarce = offer.model_copy(update={"pieces": 10, "breaks": ((1, 0.1),)})
    assert best_of((scarce, offer), 30) == (offer, True)
    assert best_of((scarce,), 30) == (scarce, False)


def test_shipping_by_steps() -> None:
    steps = supplier(shipping=[[6000, 0], [0, 690], [3000, 400]])
    assert [steps.shipping_cents(c) for c in (0, 1, 2999, 3000, 5999.9, 6000)] == [
        *(0, 690, 690, 400, 400, 0)
    ]
    assert supplier().shipping_cents(50) == 0


def test_carts_in_the_columns_that_a_supplier_wants() -> None:
    part = Part.model_validate({**REGULATOR.model_dump(mode="json"), "sold_as": ["TR-50"]})
    columns = (
        CartColumn(heading="Menge", holds="pieces"),
        CartColumn(heading="=Nr", holds="order number"),
        CartColumn(heading="Ref", holds="references"),
    )
    market = Market.of([supplier(cart=columns)], lines())
    needed = [
        Needed(part=part.id, pieces=12, references="U1 U2", description="Regulator"),
        Needed(part="resistor", pieces=9, references="R1", description="Resistor"),
    ]
    (cart,), nowhere = carts_of(needed, market, {part.id: part})
    assert list(csv.reader(io.StringIO(cart.text))) == [
        ["Menge", "'=Nr", "Ref"],
        ["15", "BK-2", "U1 U2"],
    ]
    assert cart.cents == pytest.approx(15 * 40)
    assert nowhere == (needed[1],)


@pytest.mark.parametrize(
    ("pieces", "count", "days"),
    [(30, 30, 4), (31, 30, 4), (29, 30, 21), (0, 1, 21)],
)
def test_what_lies_there_comes_sooner_than_what_comes_in(
    pieces: int, count: int, days: int
) -> None:
    offer = Offer(supplier="s", pieces=pieces, days=4, breaks=((1, 2.0),), back_days=21)
    assert offer.days_for(count) == days
    assert Offer(supplier="s", pieces=0, days=4, breaks=((1, 2.0),)).days_for(1) == 4
