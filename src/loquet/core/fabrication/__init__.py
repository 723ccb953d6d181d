"""Writers: from the finished board to the files that a house, an assembler and a programmer
want.

May import legend, drawers, pipeline and all below; never the readers of `proof`.
"""
