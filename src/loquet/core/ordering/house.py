"""A board house: what it can make, and what that costs, in cents of its own money."""

from datetime import date
from typing import Annotated

from pydantic import Field

from loquet.core.board.rules import BoardRules
from loquet.core.brief.making import USUAL_COPPER_UM, Making
from loquet.core.brief.panel_choice import Parting
from loquet.core.ordering.known import SAID, Known
from loquet.core.ordering.learning import QuoteSeen
from loquet.core.ordering.supplier import Cents, Money, Rate, Share, Words
from loquet.core.plain.frozen import Frozen
from loquet.core.quantities.lengths import UM

Um = Annotated[int, Field(ge=10, le=20_000)]
Days = Annotated[int, Field(ge=0, le=400)]
SideMm = Annotated[float, Field(gt=0, le=2000)]
Day = Annotated[str, Field(pattern=r"^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
OWN_HOUSE = "house/"
"""How ids of houses of one's own begin."""


class Shipping(Frozen):
    """A way of shipping: its price in cents and days on the road."""

    name: Words
    cents: Cents
    days: Days


class Asked(Frozen):
    """What is asked of a house: names of finish, colour and shipping, and thicknesses in µm."""

    finish: str
    colour: str
    thickness_um: int
    copper_um: int
    shipping: str


class House(Frozen):
    """Abilities in micrometres and prices in cents of a board house: boards by set-up, area and
    piece, a stencil with and without frame and the thickness of its sheet, fitting by the part (0
    does not fit); its share of duty and of value added tax, the days on which it is closed
    (`12-25`), what a panel costs by how it is parted (what is not there it does not make) and how
    far copper keeps from its score lines, what it asks back and how late its parcels are, the least
    track and gap that it etches in copper above 35 µm and what that costs.

    `known` says how its prices are known: learnt ones rest on `quotes` and miss a next one by about
    `within_cents`. One of its `currency` is `euro_each` euro, as somebody saw on `rate_seen`.
    """

    id: Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9./-]{0,63}$")]
    name: Annotated[str, Field(min_length=1, max_length=80)]
    about: Annotated[str, Field(max_length=200)] = ""
    known: Known = "typed"
    quotes: Annotated[tuple[QuoteSeen, ...], Field(max_length=60)] = ()
    within_cents: Cents = 0.0
    currency: Money = "EUR"
    euro_each: Rate = 1.0
    rate_seen: date | None = None
    track_um: Um = 150
    gap_um: Um = 150
    hole_um: Um = 300
    ring_um: Um = 150
    edge_um: Um = 300
    mask_web_um: Um = 100
    mask_grow_um: Um = 50
    hole_gap_um: Um = 250
    legend_height_um: Um = 1000
    legend_stroke_um: Um = 150
    smallest_mm: tuple[SideMm, SideMm] = (10, 10)
    largest_mm: tuple[SideMm, SideMm] = (400, 300)
    copper_layers: Annotated[tuple[int, ...], Field(min_length=1, max_length=4)] = (2,)
    thickness_um: Annotated[tuple[Um, ...], Field(min_length=1, max_length=20)] = (1600,)
    copper_um: Annotated[tuple[Um, ...], Field(min_length=1, max_length=10)] = (35,)
    finishes: Annotated[tuple[Words, ...], Field(min_length=1, max_length=20)] = (
        "lead-free solder",
    )
    colours: Annotated[tuple[Words, ...], Field(min_length=1, max_length=20)] = ("green",)
    setup_cents: Cents
    area_cents_dm2: Cents
    inner_cents_dm2: Cents = 0.0
    piece_cents: Cents = 0.0
    finish_cents: dict[Words, Cents] = {}
    colour_cents: dict[Words, Cents] = {}
    thin_cents: Cents = 0.0
    work_days: Days
    shipping: Annotated[tuple[Shipping, ...], Field(min_length=1, max_length=12)]
    breaks: Annotated[tuple[tuple[int, float], ...], Field(min_length=1, max_length=20)] = (
        (1, 1.0),
    )
    stencil_cents: Cents = 0.0
    frame_cents: Cents = 0.0
    stencil_um: Annotated[int, Field(ge=0, le=500)] = 0
    fit_setup_cents: Cents = 0.0
    fit_cents: Cents = 0.0
    fit_days: Days = 0
    duty_share: Share = 0.0
    vat_share: Share = 0.0
    closed_on: Annotated[tuple[Day, ...], Field(max_length=200)] = ()
    panel_cents: dict[Parting, Cents] = {}
    score_um: Annotated[int, Field(ge=0, le=20_000)] = 0
    asks: Annotated[str, Field(max_length=300)] = ""
    late_days: Days = 0
    heavy_least_um: Annotated[int, Field(ge=0, le=20_000)] = 0
    heavy_cents_dm2: Cents = 0.0

    @property
    def simulated(self) -> bool:
        """Whether it ships with Loquet and is invented."""
        return self.known == "simulated"

    @property
    def priced_by(self) -> str:
        """Where its prices are from, in words."""
        if self.known == "learnt":
            within = f"within {self.within_cents / 100:.2f} {self.currency}"
            return f"{self.name}, learnt from {len(self.quotes)} quotes, {within}"
        return f"price list of {self.name} ({SAID[self.known]})"

    @property
    def in_euro(self) -> "House":
        """The house with its prices in cents of a euro."""
        by = self.euro_each
        if by == 1:
            return self
        plain = {name: getattr(self, name) for name in House.model_fields}
        priced = {name: v * by for name, v in plain.items() if "cents" in name and is_price(v)}
        for name in ("finish_cents", "colour_cents", "panel_cents"):
            priced[name] = {key: cents * by for key, cents in plain[name].items()}
        ways = tuple(way.model_copy(update={"cents": way.cents * by}) for way in self.shipping)
        return House(**{**plain, **priced, "shipping": ways, "euro_each": 1.0, "currency": "EUR"})

    def asked(self, making: Making, shipping: str, chosen: bool) -> Asked:
        """What a project asks of this house: where it is the `chosen` one all as it was said, else
        the nearest that it offers.
        """
        ways = [way.name for way in self.shipping]
        if chosen:
            return Asked(
                finish=making.finish,
                colour=making.colour,
                thickness_um=making.thickness_um,
                copper_um=making.copper_um,
                shipping=shipping,
            )
        thick, copper = making.thickness_um, making.copper_um
        return Asked(
            finish=making.finish if making.finish in self.finishes else self.finishes[0],
            colour=making.colour if making.colour in self.colours else self.colours[0],
            thickness_um=thick if thick in self.thickness_um else self.thickness_um[-1],
            copper_um=copper if copper in self.copper_um else self.copper_um[0],
            shipping=ways[0],
        )

    def rules(self, copper_um: int = USUAL_COPPER_UM) -> BoardRules:
        """The drawing limits of this house for copper of this thickness."""
        um, least = UM, self.heavy_least_um if copper_um > USUAL_COPPER_UM else 0
        return BoardRules(
            track_nm=max(self.track_um, least) * um,
            gap_nm=max(self.gap_um, least) * um,
            hole_nm=self.hole_um * um,
            ring_nm=self.ring_um * um,
            edge_nm=self.edge_um * um,
            mask_web_nm=self.mask_web_um * um,
            mask_grow_nm=self.mask_grow_um * um,
            hole_gap_nm=self.hole_gap_um * um,
            legend_height_nm=self.legend_height_um * um,
            legend_stroke_nm=self.legend_stroke_um * um,
        )


def is_price(value: object) -> bool:
    """Whether a field holds one price."""
    return isinstance(value, int | float) and not isinstance(value, bool)
