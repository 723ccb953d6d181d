"""Writers: from the finished board to the files that a house, an assembler and a programmer
want.
"""
