"""The shelf: packs of parts as files, what a part needs to serve as its kind, and what is
wrong with one.

May import parts, plain and quantities; it knows no brief and no board.
"""
