"""What a matrix of lights asks."""

from loquet.core.brief.kinds.light_matrix import LightMatrix
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: LightMatrix, ask: Asking) -> list[Need]:
    """Rows that are driven hard, and columns."""
    rows = [
        ask.need(f"row {i + 1}", "high drive", f"light row {i + 1}", load="light")
        for i in range(thing.rows)
    ]
    columns = [
        ask.need(f"column {i + 1}", "output", f"light column {i + 1}", load="light")
        for i in range(thing.columns)
    ]
    return rows + columns


NEEDS = (LightMatrix, needs)
