"""The device in the third dimension: what stands how high on, under and around a board, and the
shell about it. Lengths are mm; z is 0 on the far face of the board and grows to the near side.

May import pipeline, lookup and all below; checks read what it measures.
"""
