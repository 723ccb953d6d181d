"""A board house: what it can make, and what that costs.

Prices are in cents, invented for the scenario.
"""

from loquet.core.board.rules import USUAL_COPPER_UM, BoardRules
from loquet.core.brief.panel_choice import Parting
from loquet.core.plain.frozen import Frozen
from loquet.core.quantities.lengths import UM


class Shipping(Frozen):
    """A way of shipping: its price in cents and days on the road."""

    name: str
    cents: int
    days: int


class House(Frozen):
    """Abilities in micrometres and prices in cents of a (simulated) board house: boards, a stencil
    with and without frame and the thickness of its sheet, fitting by the part (0 does not fit); its
    share of duty, the days on which it is closed (`12-25`), what a panel costs by how it is parted
    (what is not there it does not make) and how far copper keeps from its score lines, what it asks
    back and how late its parcels are, the least track and gap that it etches in copper above 35 µm
    and what that costs.
    """

    id: str
    name: str
    about: str
    track_um: int
    gap_um: int
    hole_um: int
    ring_um: int
    edge_um: int
    mask_web_um: int
    mask_grow_um: int
    hole_gap_um: int
    legend_height_um: int
    legend_stroke_um: int
    smallest_mm: tuple[float, float]
    largest_mm: tuple[float, float]
    copper_layers: tuple[int, ...]
    thickness_um: tuple[int, ...]
    copper_um: tuple[int, ...]
    finishes: tuple[str, ...]
    colours: tuple[str, ...]
    setup_cents: int
    area_cents_dm2: int
    inner_cents_dm2: int
    finish_cents: dict[str, int]
    colour_cents: dict[str, int]
    thin_cents: int
    work_days: int
    shipping: tuple[Shipping, ...]
    breaks: tuple[tuple[int, float], ...]
    stencil_cents: int = 0
    frame_cents: int = 0
    stencil_um: int = 0
    fit_setup_cents: int = 0
    fit_cents: float = 0.0
    fit_days: int = 0
    duty_share: float = 0.0
    closed_on: tuple[str, ...] = ()
    panel_cents: dict[Parting, int] = {}
    score_um: int = 0
    asks: str = ""
    late_days: int = 0
    heavy_least_um: int = 0
    heavy_cents_dm2: int = 0

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
