"""What a brief means with the catalogue at hand: its chips, its power, what lies over its boards,
what was measured of its parts.

May import brief, parts, pins, power, circuit, board and panel, and the library; no stage of the
pipeline.
"""
