"""Board houses: their limits, prices and calendars.

May import board and brief, for what a house is asked to make; prices come from the catalogue.
"""
