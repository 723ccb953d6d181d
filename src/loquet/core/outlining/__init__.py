"""Outlines of boards and shells: shaped by caliper values, read from drawings in DXF and SVG,
written as both.

May import board, brief and geometry; edits take what it finds.
"""

from loquet.core.outlining.finding import (
    Found,
    OutlineRefused,
    find_outline,
)
from loquet.core.outlining.opening_shapes import FoundFree, FoundHole, FoundOpening
from loquet.core.outlining.writing import outline_as_dxf, outline_as_svg

__all__ = [
    "Found",
    "FoundFree",
    "FoundHole",
    "FoundOpening",
    "OutlineRefused",
    "find_outline",
    "outline_as_dxf",
    "outline_as_svg",
]
