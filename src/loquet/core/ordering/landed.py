"""What devices cost at the door: boards, stencil, parts, fitting, shipping, duty; for one quantity
and as a curve.
"""

from collections.abc import Callable, Sequence
from typing import Literal

from loquet.core.ordering.house import House
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Source, Working, WorkingInput, given

Stencil = Literal["none", "sheet", "framed"]
Fitting = Literal["hand", "house"]
CURVE = (5, 10, 20, 30, 50, 100, 200, 300, 500, 1000)
TITLES = {
    "boards": "Boards",
    "stencil": "Stencils",
    "fitting": "Fitting by the house",
    "parts": "Parts with spares",
    "shipping": "Shipping",
    "duty": "Duty",
    "tax": "Value added tax",
}


class Wanted(Frozen):
    """What is wanted beside the boards."""

    stencil: Stencil = "sheet"
    fitting: Fitting = "hand"


class Bought(Frozen):
    """What is bought beside the boards: cents for parts with spares, for their shipping, duty and
    tax, what has no price here, lines that nobody has in that number, lines whose price was seen
    long ago, and in words where the prices are from.
    """

    parts_cents: int = 0
    shipping_cents: int = 0
    duty_cents: int = 0
    tax_cents: int = 0
    unpriced: tuple[str, ...] = ()
    short: tuple[str, ...] = ()
    old: tuple[str, ...] = ()
    priced_by: str = "part suppliers (simulated, invented)"


class Landed(Frozen):
    """What so many devices cost: lines in cents with their workings, the sum, and each; where
    something in it is `unpriced`, the sum is the least that they cost. `short` are lines that
    nobody has in that number now, `old` those whose price was seen more than 90 days ago; what a
    house is learnt to ask may be missed by `within_cents`.
    """

    quantity: int
    lines: tuple[tuple[str, int], ...]
    workings: tuple[Working, ...]
    total_cents: int
    each_cents: float
    unpriced: tuple[str, ...] = ()
    short: tuple[str, ...] = ()
    old: tuple[str, ...] = ()
    within_cents: float = 0.0


class OptionCost(Frozen):
    """What an option changes in all, in cents, against what is chosen: of which sort, its words."""

    sort: str
    words: str
    cents: int


class CurvePoint(Frozen):
    """A quantity with what it costs in all and each; `cheaper` is a larger quantity that costs no
    more in all.
    """

    quantity: int
    total_cents: int
    each_cents: float
    cheaper: int | None


def landed(
    house: House,
    wanted: Wanted,
    quantity: int,
    boards_cents: int,
    boards_shipping_cents: int,
    bought: Bought,
    placed: int,
    stencils: int = 1,
) -> Landed:
    """The sum for a quantity: `boards_cents` without shipping, what is `bought` beside them,
    `placed` surface parts of a device that a machine fits, one of so many `stencils` for each side
    with paste. Duty is on goods and work, not on shipping; tax is on all of that.
    """
    one = {"none": 0, "sheet": house.stencil_cents, "framed": house.frame_cents}[wanted.stencil]
    stencil, parts_cents = round(one * stencils), bought.parts_cents
    parts_shipping = bought.shipping_cents
    fitted = wanted.fitting == "house" and house.fit_cents > 0
    unpriced = bought.unpriced
    if wanted.stencil != "none" and not one and not fitted:
        unpriced = (*unpriced, f"a stencil of {house.name}")
    stencil = 0 if fitted else stencil
    fitting = round(house.fit_setup_cents + house.fit_cents * placed * quantity) if fitted else 0
    goods = boards_cents + stencil + fitting
    duty = round(house.duty_share * goods)
    tax = round(house.vat_share * (goods + boards_shipping_cents + duty))

    def cents(name: str, value: float, origin: str) -> WorkingInput:
        return given(name, value, "cents", origin)

    rows = (
        line(
            "boards",
            boards_cents,
            "boards",
            (cents("boards", boards_cents, "quote"),),
            house,
            bought,
        ),
        line(
            "stencil",
            stencil,
            "each x stencils" if stencil else "none",
            (
                (
                    cents("each", one, f"list, {wanted.stencil}"),
                    given("stencils", stencils, "", "sides with paste"),
                )
                if stencil
                else (cents("none", 0, "fitted by the house, or none wanted"),)
            ),
            house,
            bought,
        ),
        line(
            "fitting",
            fitting,
            "set-up + each x parts x devices" if fitted else "none",
            fitting_inputs(house, placed, quantity, fitted),
            house,
            bought,
        ),
        line(
            "parts",
            parts_cents,
            "parts",
            (cents("parts", parts_cents, "cheapest offers"),),
            house,
            bought,
        ),
        line(
            "shipping",
            boards_shipping_cents + parts_shipping,
            "boards + parts",
            (
                cents("boards", boards_shipping_cents, "quote of the house"),
                cents("parts", parts_shipping, "of each supplier by its own steps"),
            ),
            house,
            bought,
        ),
        line(
            "duty",
            duty + bought.duty_cents,
            "share x (boards + stencil + fitting) + parts",
            (
                given("share", house.duty_share, "", house.priced_by),
                cents("boards", boards_cents, "above"),
                cents("stencil", stencil, "above"),
                cents("fitting", fitting, "above"),
                cents("parts", bought.duty_cents, "of each supplier by its own share"),
            ),
            house,
            bought,
        ),
        line(
            "tax",
            tax + bought.tax_cents,
            "share x (boards + stencil + fitting + shipping + duty) + parts",
            (
                given("share", house.vat_share, "", house.priced_by),
                cents("boards", boards_cents, "above"),
                cents("stencil", stencil, "above"),
                cents("fitting", fitting, "above"),
                cents("shipping", boards_shipping_cents, "of the boards"),
                cents("duty", duty, "of the boards"),
                cents("parts", bought.tax_cents, "of each supplier by its own share"),
            ),
            house,
            bought,
        ),
    )
    shown = tuple(row for row in rows if row.value)
    total = round(sum(row.value for row in shown))
    return Landed(
        quantity=quantity,
        lines=tuple((row.title, round(row.value)) for row in shown),
        workings=shown,
        total_cents=total,
        each_cents=round(total / quantity, 1),
        unpriced=unpriced,
        short=bought.short,
        old=bought.old,
        within_cents=house.within_cents,
    )


def fitting_inputs(
    house: House, placed: int, quantity: int, fitted: bool
) -> tuple[WorkingInput, ...]:
    """What fitting costs."""
    if not fitted:
        return (given("none", 0, "cents", "fitted by hand"),)
    return (
        given("set-up", house.fit_setup_cents, "cents", "list"),
        given("each", house.fit_cents, "cents", "list"),
        given("parts", placed, "", "surface parts of a device"),
        given("devices", quantity, "", "asked for"),
    )


def line(
    name: str,
    cents: int,
    formula: str,
    inputs: tuple[WorkingInput, ...],
    house: House,
    bought: Bought,
) -> Working:
    """A line with its working."""
    return Working(
        id=f"landed.{house.id}.{name}",
        title=TITLES[name],
        value=cents,
        unit="cents",
        shown=f"{cents / 100:.2f} €",
        formula=formula,
        inputs=inputs,
        source=Source(
            kind="assumed" if house.simulated else "house rules",
            text=f"{house.priced_by}; {bought.priced_by}",
        ),
    )


def curve(quantities: Sequence[int], cost: Callable[[int], Landed]) -> tuple[CurvePoint, ...]:
    """The cost of many quantities, each with the largest one that costs no more in all."""
    found = [cost(n) for n in sorted(set(quantities))]
    return tuple(
        CurvePoint(
            quantity=one.quantity,
            total_cents=one.total_cents,
            each_cents=one.each_cents,
            cheaper=max(
                (
                    o.quantity
                    for o in found
                    if o.quantity > one.quantity and o.total_cents <= one.total_cents
                ),
                default=None,
            ),
        )
        for one in found
    )
