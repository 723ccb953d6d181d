"""Components and nets, from recipes that read like application notes.

May import pins, power, parts and brief; it knows no board.
"""

from loquet.core.circuit.model import Circuit, Component, Fragment, Net, RecipeNotPossible

__all__ = ["Circuit", "Component", "Fragment", "Net", "RecipeNotPossible"]
