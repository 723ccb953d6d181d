"""Where a switch stands: between the guard of the first source and what is behind it."""

from loquet.core.brief import Thing, plain_name
from loquet.core.brief.kinds.cells import Cells
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import feed_way, switched_by
from loquet.core.circuit.model import RecipeNotPossible


def switched_way(thing: Thing, bench: Bench) -> tuple[Thing, str, str]:
    """The source that a switch is for, and the nets before and behind it; raises RecipeNotPossible
    where there is nothing to switch.
    """
    source = next((t for t in bench.brief.things if switched_by(bench.brief, t) is thing), None)
    if source is None:
        limit = "there is nothing that it could switch yet"
        raise RecipeNotPossible(thing.name, limit, "Add cells, or take the switch off.")
    way = feed_way(bench, source)
    return source, nets_of(source)[1] if isinstance(source, Cells) else way.guarded, way.behind


def nets_of(thing: Cells) -> tuple[str, str]:
    """The nets before and behind the guard: of the plain name, or the thing's own."""
    if thing.name == thing.WORD:
        return "CELLS", "GUARDED"
    return plain_name(thing.role("top")), plain_name(thing.role("guarded"))
