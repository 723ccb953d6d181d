"""A panel asked for in tests."""

from loquet.core.design import Design
from tests.editing import edit

TWO_BY_THREE = {"by": "tabs", "columns": 2, "rows": 3, "rail_mm": 6}


def with_panel(design: Design, **choice: object) -> Design:
    return edit(design, kind="choose-panel", panel={**TWO_BY_THREE, **choice})
