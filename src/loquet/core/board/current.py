"""How wide a track must be for its current (IPC-2221, section 6.2)."""

from collections.abc import Mapping
from math import ceil

from loquet.core.brief.making import USUAL_COPPER_UM
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.lengths import MM

MIL_MM = 0.0254
OUTER_K, INNER_K = 0.048, 0.024
RISE_K = 10.0
WIDTH_STEP_NM = 50_000


def track_width_mm(
    current_a: float, rise_k: float, copper_um: float = USUAL_COPPER_UM, outer: bool = True
) -> float:
    """Width in mm for a current and temperature rise: I = k dT^0.44 A^0.725 with A in square mil
    (IPC-2221, figure 6-4).

    Raises ValueError for a current, rise or thickness that is not positive.
    """
    if min(current_a, rise_k, copper_um) <= 0:
        raise ValueError("current, rise and copper thickness must be positive")
    area_mil2 = (current_a / ((OUTER_K if outer else INNER_K) * rise_k**0.44)) ** (1 / 0.725)
    return float(area_mil2 * MIL_MM**2 / (copper_um / 1000))


def width_for_nm(current_a: float, copper_um: float = USUAL_COPPER_UM) -> int:
    """The width in nm for a current at a rise of 10 K on outer copper, up to the next 0.05 mm; 0
    for none.
    """
    if current_a <= 0:
        return 0
    return ceil(track_width_mm(current_a, RISE_K, copper_um) * MM / WIDTH_STEP_NM) * WIDTH_STEP_NM


def supply_width_working(
    least_nm: int, peaks_a: Mapping[str, float], copper_um: float = USUAL_COPPER_UM
) -> Working:
    """How wide the tracks of the rail with the most current are drawn where there is room;
    `peaks_a` by net.
    """
    net, current_a = max(peaks_a.items(), key=lambda row: row[1], default=("no rail", 0.0))
    width_nm = max(width_for_nm(current_a, copper_um), least_nm)
    return Working(
        id="board.supply_width",
        title="Supply tracks",
        value=width_nm / 1e6,
        unit="mm",
        shown=f"{width_nm / 1e6:.2f} mm",
        formula="max(ceil((I / (k x dT^0.44))^(1 / 0.725) x mil^2 / t / step) x step, least)",
        inputs=(
            given("I", round(current_a * 1000, 1), "mA", f"peak of {net}, at Power"),
            given("dT", RISE_K, "K", "common practice"),
            given("k", OUTER_K, "", "outer copper, area in square mil"),
            given("mil", MIL_MM, "mm", "a thousandth of an inch"),
            given("t", copper_um / 1000, "mm", "copper chosen at Release"),
            given("step", WIDTH_STEP_NM / 1e6, "mm", "widths are drawn in these steps"),
            given("least", least_nm / 1e6, "mm", "the house's width for supplies"),
        ),
        source=Source(
            kind="standard", text="IPC-2221 section 6.2, external conductors; from memory"
        ),
    )
