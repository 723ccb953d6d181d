"""How wide a track must be for its current (IPC-2221, section 6.2)."""

from loquet.core.provenance import Source, Working, given

MIL_MM = 0.0254
OUTER_K, INNER_K = 0.048, 0.024


def track_width_mm(
    current_a: float, rise_k: float, copper_um: float = 35.0, outer: bool = True
) -> float:
    """Width in mm for a current and temperature rise: I = k dT^0.44 A^0.725 with A in square mil (IPC-2221, figure 6-4).

    Raises ValueError for a current, rise or thickness that is not positive.
    """
    if min(current_a, rise_k, copper_um) <= 0:
        raise ValueError("current, rise and copper thickness must be positive")
    area_mil2 = (current_a / ((OUTER_K if outer else INNER_K) * rise_k**0.44)) ** (1 / 0.725)
    return float(area_mil2 * MIL_MM**2 / (copper_um / 1000))


def supply_width_working(width_nm: int, current_a: float) -> Working:
    """Whether the supply tracks are wide enough, and by how much."""
    needed = track_width_mm(current_a, 10)
    return Working(
        id="board.supply_width",
        title="Supply tracks",
        value=width_nm / 1e6,
        unit="mm",
        shown=f"{width_nm / 1e6:.2f} mm",
        formula=f"max((I / (k x dT^0.44))^(1 / 0.725) x mil^2 / t, least), for the current alone {needed:.3f} mm",
        inputs=(
            given("I", current_a * 1000, "mA", "upper bound for two AAA cells here; assumed"),
            given("dT", 10, "K", "common practice"),
            given("k", OUTER_K, "", "outer copper, area in square mil"),
            given("mil", MIL_MM, "mm", "a thousandth of an inch"),
            given("t", 0.035, "mm", "copper by the house rules"),
            given("least", width_nm / 1e6, "mm", "the house's width for supplies"),
        ),
        source=Source(
            kind="standard", text="IPC-2221 section 6.2, external conductors; from memory"
        ),
    )
