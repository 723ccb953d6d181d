"""Whether a brief can be made at all, how its pins fall, and what another plan would gain.

May import the pipeline and all below it; nothing in the core imports it.
"""
