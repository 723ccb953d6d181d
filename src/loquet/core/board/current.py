"""How wide a track must be for its current (IPC-2221, section 6.2)."""

from loquet.core.provenance import Source, Working, WorkingInput

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
        formula=f"needed for the current: {needed:.3f} mm; drawn at least 0.30 mm",
        inputs=(
            WorkingInput(
                name="current",
                value=f"{current_a * 1000:.0f}",
                unit="mA",
                origin="upper bound for two AAA cells here; assumed",
            ),
            WorkingInput(name="rise", value="10", unit="K", origin="common practice"),
            WorkingInput(name="copper", value="35", unit="µm", origin="house rules"),
        ),
        source=Source(
            kind="standard", text="IPC-2221 section 6.2, external conductors; from memory"
        ),
    )
