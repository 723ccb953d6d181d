"""A coin cell in its holder: the holder takes it one way round only, a capacitor helps it over
short peaks.
"""

from loquet.core.brief.kinds.coin_cell import CoinCell
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import capacitor, feed_way, plus_of, source_plug, supplies
from loquet.core.circuit.model import Fragment
from loquet.core.power.converting import OUT


def recipe(thing: CoinCell, bench: Bench) -> Fragment:
    """The holder on the way to the rail."""
    way = feed_way(bench, thing)
    holder = source_plug(thing, bench.parts[thing.bodies()[0].part], "2032 cell", way.guarded)
    words = "Helps the coin cell over short peaks"
    help_ = capacitor(
        bench, f"{thing.role()} help", OUT, words, way.rail, (holder.role, plus_of(holder))
    )
    return Fragment((holder, help_), supplies(way.guarded, way.rail))


RECIPE = (CoinCell, recipe)
