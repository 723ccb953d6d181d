"""The first format of a brief, `loquet-brief-1`: read for ever, and turned into the present one;
nothing else knows it.
"""

from loquet.core.brief.first.turning import present_from_first

__all__ = ["present_from_first"]
