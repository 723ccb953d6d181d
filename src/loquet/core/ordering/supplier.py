"""A supplier of parts: what shipping, duty and tax it asks, how its price list is read and how its
cart is written.
"""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.ordering.known import Known
from loquet.core.ordering.price_list import Decimal
from loquet.core.plain.frozen import Frozen

Words = Annotated[str, Field(max_length=80)]
Share = Annotated[float, Field(ge=0, le=1)]
Cents = Annotated[float, Field(ge=0, le=1e9)]
Rate = Annotated[float, Field(gt=0, le=1000)]
Money = Annotated[str, Field(pattern=r"^[A-Z]{3}$")]
"""A currency by its code of ISO 4217."""
Holds = Literal["order number", "maker number", "pieces", "references", "description"]
"""What a column of a cart holds."""


class CartColumn(Frozen):
    """A column of a cart: its heading and what stands in it."""

    heading: Words
    holds: Holds


CART = (
    CartColumn(heading="order number", holds="order number"),
    CartColumn(heading="pieces", holds="pieces"),
    CartColumn(heading="for", holds="references"),
)


class Supplier(Frozen):
    """Where parts are bought. Prices are in its own `currency`, of which one is `euro_each` euro,
    as somebody saw on `rate_seen`; shipping costs by `shipping` steps, each from so many cents of
    goods on; `days` to the bench where its list does not say; `columns` say what its price list
    has under which heading, `decimal` how it writes a price, `cart` how it wants its own.
    """

    id: Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9./-]{0,63}$")]
    name: Annotated[str, Field(min_length=1, max_length=80)]
    known: Known = "typed"
    currency: Money = "EUR"
    euro_each: Rate = 1.0
    rate_seen: date | None = None
    vat_share: Share = 0.0
    duty_share: Share = 0.0
    shipping: Annotated[tuple[tuple[Cents, Cents], ...], Field(max_length=12)] = ()
    days: Annotated[int, Field(ge=0, le=400)] = 7
    columns: Annotated[dict[Words, Words], Field(max_length=80)] = {}
    decimal: Decimal = "."
    cart: Annotated[tuple[CartColumn, ...], Field(min_length=1, max_length=12)] = CART

    def shipping_cents(self, goods_cents: float) -> float:
        """What shipping costs for so many cents of goods, in its currency; nothing for nothing."""
        if goods_cents <= 0:
            return 0.0
        steps = sorted(step for step in self.shipping if step[0] <= goods_cents)
        return steps[-1][1] if steps else 0.0

    def euro(self, cents: float) -> float:
        """Cents of its currency in cents of a euro."""
        return cents * self.euro_each
