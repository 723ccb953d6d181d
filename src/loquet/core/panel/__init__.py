"""Several boards as one plate: where they lie, what holds them, how they are parted.

May import board, brief and geometry; it knows boards as outlines.
"""

from loquet.core.panel.laying import Panel, lay_panel
from loquet.core.panel.tabs import Tab

__all__ = ["Panel", "Tab", "lay_panel"]
