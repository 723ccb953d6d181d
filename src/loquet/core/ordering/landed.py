"""What devices cost at the door: boards, stencil, parts, fitting, shipping, duty; for one quantity and as a curve."""

from collections.abc import Callable, Sequence
from typing import Literal

from loquet.core.frozen import Frozen
from loquet.core.ordering.house import House
from loquet.core.provenance import Source, Working, WorkingInput, given

Stencil = Literal["none", "sheet", "framed"]
Fitting = Literal["hand", "house"]
CURVE = (5, 10, 20, 30, 50, 100, 200, 300, 500, 1000)
PARTS_SHIPPING_CENTS, FREE_SHIPPING_CENTS = 690, 6000
"""Parts are shipped free from a sum on; invented for the scenario."""


class Wanted(Frozen):
    """What is wanted beside the boards."""

    stencil: Stencil = "sheet"
    fitting: Fitting = "hand"


class Landed(Frozen):
    """What so many devices cost: lines in cents with their workings, the sum, and each."""

    quantity: int
    lines: tuple[tuple[str, int], ...]
    workings: tuple[Working, ...]
    total_cents: int
    each_cents: float


class OptionCost(Frozen):
    """What an option changes in all, in cents, against what is chosen: of which sort, its words."""

    sort: str
    words: str
    cents: int


class CurvePoint(Frozen):
    """A quantity with what it costs in all and each; `cheaper` is a larger quantity that costs no more in all."""

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
    parts_cents: int,
    placed: int,
) -> Landed:
    """The sum for a quantity: `boards_cents` without shipping, `parts_cents` with spares, `placed` surface parts of a device that a machine fits. Duty is on goods and work, not on shipping."""
    stencil = {"none": 0, "sheet": house.stencil_cents, "framed": house.frame_cents}[wanted.stencil]
    fitted = wanted.fitting == "house" and house.fit_cents > 0
    stencil = 0 if fitted else stencil
    fitting = round(house.fit_setup_cents + house.fit_cents * placed * quantity) if fitted else 0
    goods = boards_cents + stencil + fitting
    duty = round(house.duty_share * goods)
    parts_shipping = (
        0 if parts_cents >= FREE_SHIPPING_CENTS or not parts_cents else PARTS_SHIPPING_CENTS
    )
    rows = (
        line("boards", "Boards", boards_cents, "boards", (given("boards", boards_cents, "cents", "quote of the house"),), house),
        line("stencil", "Stencil", stencil, "stencil", (given("stencil", stencil, "cents", f"list, {wanted.stencil}"),), house),
        line("fitting", "Fitting by the house", fitting, "set-up + each x parts x devices" if fitted else "none", fitting_inputs(house, placed, quantity, fitted), house),
        line("parts", "Parts with spares", parts_cents, "parts", (given("parts", parts_cents, "cents", "cheapest offers of two suppliers"),), house),
        line("shipping", "Shipping", boards_shipping_cents + parts_shipping, "boards + parts", (given("boards", boards_shipping_cents, "cents", "quote of the house"), given("parts", parts_shipping, "cents", f"free from {FREE_SHIPPING_CENTS / 100:.0f} € on")), house),
        line("duty", "Duty", duty, "share x (boards + stencil + fitting)", (given("share", house.duty_share, "", "list, invented"), given("boards", boards_cents, "cents", "above"), given("stencil", stencil, "cents", "above"), given("fitting", fitting, "cents", "above")), house),
    )  # fmt: skip
    shown = tuple(row for row in rows if row.value)
    total = round(sum(row.value for row in shown))
    return Landed(
        quantity=quantity,
        lines=tuple((row.title, round(row.value)) for row in shown),
        workings=shown,
        total_cents=total,
        each_cents=round(total / quantity, 1),
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
    title: str,
    cents: int,
    formula: str,
    inputs: tuple[WorkingInput, ...],
    house: House,
) -> Working:
    """A line with its working."""
    return Working(
        id=f"landed.{house.id}.{name}",
        title=title,
        value=cents,
        unit="cents",
        shown=f"{cents / 100:.2f} €",
        formula=formula,
        inputs=inputs,
        source=Source(
            kind="assumed", text=f"{house.name} and part suppliers (simulated, invented)"
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
