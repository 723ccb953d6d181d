"""Reading finished files back, and proving from their bytes alone that they hold the design.

May import what is made, to compare; its readers know the published formats alone.
"""
