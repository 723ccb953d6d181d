"""What is printed on a board: bodies, names, and the marks without which a part is put on the wrong
way.

May import pipeline and board with all below; checks and fabrication stand on it.
"""

from loquet.core.legend.drawing import Legend, legend_of
from loquet.core.legend.marks import Unmarked

__all__ = ["Legend", "Unmarked", "legend_of"]
