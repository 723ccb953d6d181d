"""Recipes: each takes a need and the catalogue's parts, and returns a Fragment or raises RecipeNotPossible."""
