"""Board houses: their limits, prices and calendars."""
