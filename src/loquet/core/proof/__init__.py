"""Reading finished files back, and proving from their bytes alone that they hold the design."""
