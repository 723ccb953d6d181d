"""Two leads that are the rail themselves, behind a guard."""

from loquet.core.brief.kinds.leads import Leads
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import feed_way, plus_of, reverse_guard, source_plug, supplies
from loquet.core.circuit.model import Fragment


def recipe(thing: Leads, bench: Bench) -> Fragment:
    """Pads and guard."""
    way = feed_way(bench, thing)
    plug = source_plug(thing, bench.parts[thing.bodies()[0].part], f"{thing.volts:g} V", way.top)
    guard = reverse_guard(bench, thing, way, thing.volts, (plug.role, plus_of(plug)))
    return Fragment((plug, guard), supplies(way.top, way.guarded, way.rail))


RECIPE = (Leads, recipe)
