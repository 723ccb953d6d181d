"""Drawings at true size and bodies to make, of a shell about a board.

May import stack and all below; nothing stands on it but the application.
"""

from loquet.core.templates.sheets import TEMPLATES, Template, sheet_for
from loquet.core.templates.writing import write_template

__all__ = ["TEMPLATES", "Template", "sheet_for", "write_template"]
