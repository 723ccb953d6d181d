"""Drawn sheets of a circuit: blocks with symbols after IEC 60617, for the screen and as pages.

May import circuit and library with all below; it knows no board.
"""

from loquet.core.sheets.drawn import Area, Mark
from loquet.core.sheets.making import areas_of
from loquet.core.sheets.pages import write_sheets
from loquet.core.sheets.titles import title_of

__all__ = ["Area", "Mark", "areas_of", "title_of", "write_sheets"]
