"""Whether a brief can be made at all, how its pins fall, and what another plan would gain.

May import the pipeline and all below it; of rooms above it is used by edits and checks of nobody.
"""
