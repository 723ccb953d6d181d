"""What a panel comes to: its size, and the boards that come, each with its working."""

from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.panel.laying import Panel
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.core.quantities.lengths import MM

COMMON = Source(
    kind="common practice", text="slots of the usual mill, rails for the machine; no source"
)


def panel_figures(panel: Panel, choice: PanelChoice, quantity: int) -> tuple[Working, ...]:
    """Width and height in mm, panels needed, and the boards that come for so many devices."""
    needed = -(-quantity // choice.copies)
    columns, rows = (
        given("columns", choice.columns, "", "asked for"),
        given("rows", choice.rows, "", "asked for"),
    )
    rail = given("rails", choice.rail_mm, "mm", "asked for, two of them")
    lengths = (columns, rows, rail)
    per = given("copies", choice.copies, "", "columns x rows")
    devices = given("devices", quantity, "", "brief")
    how = "boards + slots between" if choice.by == "tabs" else "boards side by side"
    return (
        figure(
            "width",
            "Width",
            panel.width / MM,
            "mm",
            f"{how}, and rails where they stand upright",
            lengths,
        ),
        figure(
            "height", "Height", panel.height / MM, "mm", f"{how}, and rails where they lie", lengths
        ),
        figure(
            "needed", "Panels needed", needed, "panels", "ceil(devices / copies)", (devices, per)
        ),
        figure(
            "boards",
            "Boards that come",
            needed * choice.copies,
            "boards",
            "panels x copies",
            (given("panels", needed, "", "above"), per),
        ),
    )


def figure(
    name: str,
    title: str,
    value: float,
    unit: str,
    formula: str,
    inputs: tuple[WorkingInput, ...],
) -> Working:
    """One figure."""
    return Working(
        id=f"panel.{name}",
        title=title,
        value=value,
        unit=unit,
        shown=f"{value:.1f} mm" if unit == "mm" else f"{value:g}",
        formula=formula,
        inputs=inputs,
        source=COMMON,
    )
