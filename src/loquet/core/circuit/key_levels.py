"""What holds a key's line while it is open: the chip's own pull-up, or a pull-down resistor on the
board.
"""

from loquet.core.power import Rail
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

CHIP_PULL_UP_OHM = 40_000.0
PRESSED_CURRENT_A = 0.3e-3
INSIDE_KOHM = 40.0


def pull_down_ohm(rail: Rail) -> float:
    """The pull-down for a light contact current, in ohm."""
    return nearest(rail.usual_v / PRESSED_CURRENT_A, "E12")


def pull_up_working(rail: Rail) -> Working:
    """Current through one pressed button with the chip's own pull-up."""
    current_ua = rail.usual_v / CHIP_PULL_UP_OHM * 1e6
    return Working(
        id="buttons.current",
        title="Current while one button is held",
        value=current_ua,
        unit="µA",
        shown=f"{current_ua:.0f} µA",
        formula="V / R",
        inputs=(
            WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
            WorkingInput(
                name="R",
                value=f"{INSIDE_KOHM:g}",
                unit="kΩ",
                origin="usual pull-up inside a chip; from memory",
            ),
        ),
        source=Source(
            kind="from memory",
            text="usual internal pull-up of about 40 kΩ; the maker's data sheet gives limits",
        ),
    )


def pull_down_working(resistance: float, rail: Rail) -> Working:
    """The pull-down value for a light contact current."""
    return Working(
        id="buttons.pull_down",
        title="Pull-down at each button",
        value=resistance,
        unit="Ω",
        shown=show_si(resistance, "Ω"),
        formula="V / I, nearest E12",
        inputs=(
            WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
            WorkingInput(
                name="I",
                value="0.3",
                unit="mA",
                origin="common practice: wets the contact, spares the cells",
            ),
        ),
        source=Source(
            kind="standard",
            text="IEC 60063 preferred values; contact current: common practice, no source",
        ),
    )
