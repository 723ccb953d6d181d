"""The figures of a quote, each with its formula; prices are the house's own."""

from collections.abc import Mapping, Sequence
from typing import Any

from loquet.core.ordering.house import House
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.standins.board_house import Quote, factor_of

Lines = Sequence[tuple[str, int]]


def money_figure(
    name: str, title: str, cents: float, formula: str, inputs: tuple[WorkingInput, ...], source: str
) -> Working:
    """A sum in cents, shown in euro."""
    return Working(
        id=f"quote.{name}",
        title=title,
        value=cents,
        unit="cents",
        shown=f"{cents / 100:.2f} €",
        formula=formula,
        inputs=inputs,
        source=Source(kind="assumed" if "simulated" in source else "house rules", text=source),
    )


def line_figures(quote: Quote, house: House) -> list[Working]:
    """Every line of a quote: set-up, boards and thick copper worked out, the others as the price
    list has them.
    """
    boards = given("boards in a set", quote.boards, "", "files")
    area = given("area", quote.area_mm2 / 10_000, "dm²", made_of(quote))
    share = given("share", factor_of(house, quote.quantity), "", "breaks of the list")
    worked = (
        ("set-up x boards in a set", (given("set-up", house.setup_cents, "cents", "list"), boards)),
        (
            boards_formula(quote, house),
            (
                area,
                given("price", house.area_cents_dm2, "cents/dm²", "list"),
                *inner_inputs(quote, house),
                *piece_inputs(quote, house),
                share,
            ),
        ),
    )
    found = []
    for index, (what, cents) in enumerate(quote.lines):
        if index < len(worked):
            formula, inputs = worked[index]
        elif what.startswith("copper"):
            price = given("price", house.heavy_cents_dm2, "cents/dm²", "list")
            formula, inputs = "round(area x price x share)", (area, price, share)
        else:
            formula, inputs = "price", (given("price", cents, "cents", "list"),)
        found.append(money_figure(f"line {index}", what, cents, formula, inputs, house.priced_by))
    return found


def boards_formula(quote: Quote, house: House) -> str:
    """How the boards are worked out."""
    sums = ["area x price"]
    sums += ["area of four layers x price of inner layers"] if quote.inner_mm2 else []
    sums += ["plates x price of a plate"] if house.piece_cents else []
    return f"({' + '.join(sums)}) x share" if len(sums) > 1 else f"{sums[0]} x share"


def piece_inputs(quote: Quote, house: House) -> tuple[WorkingInput, ...]:
    """What a plate costs beside its area."""
    if not house.piece_cents:
        return ()
    return (
        given("plates", quote.plates, "", "files"),
        given("price of a plate", house.piece_cents, "cents", "list"),
    )


def inner_inputs(quote: Quote, house: House) -> tuple[WorkingInput, ...]:
    """What inner layers cost, where there are any."""
    if not quote.inner_mm2:
        return ()
    return (
        given("area of four layers", quote.inner_mm2 / 10_000, "dm²", made_of(quote)),
        given("price of inner layers", house.inner_cents_dm2, "cents/dm²", "list"),
    )


def made_of(quote: Quote) -> str:
    """Where the area is from."""
    return f"outlines of the files, {quote.plates} plates"


def total_figure(lines: Lines, total_cents: float, source: str) -> Working:
    """What everything costs at the door: the sum of all lines."""
    inputs = tuple(given(what, cents, "cents", "this quote") for what, cents in lines)
    formula = " + ".join(what for what, _ in lines)
    return money_figure("total", "Landed", total_cents, formula, inputs, source)


def each_figure(quote: Quote, source: str) -> Working:
    """What one set costs."""
    inputs = (
        given("landed", quote.total_cents, "cents", "this quote"),
        given("sets", quote.quantity, "", "asked for"),
    )
    return money_figure("each", "Each", quote.each_cents, "landed / sets", inputs, source)


def ordered_figure(quoted: Mapping[str, Any], source: str) -> Working:
    """What a placed order costs, as it was quoted."""
    return total_figure(
        [(what, cents) for what, cents in quoted["lines"]], quoted["total_cents"], source
    )
