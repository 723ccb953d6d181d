"""A series pack on its plug; it is charged and balanced outside."""

from loquet.core.brief.kinds.series_pack import SeriesPack
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged
from loquet.core.circuit.model import Fragment


def recipe(thing: SeriesPack, bench: Bench) -> Fragment:
    """Plug, guard, converter."""
    return plugged(thing, bench, thing.bodies()[0].part, f"{thing.cells} lithium cells")


RECIPE = (SeriesPack, recipe)
