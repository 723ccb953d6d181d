"""A block of one's own on its posts."""

from loquet.core.brief.kinds.own_block import OwnBlock
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import own_posts
from loquet.core.circuit.model import Fragment


def recipe(thing: OwnBlock, bench: Bench) -> Fragment:
    """Its posts in its own pin order."""
    return own_posts(thing, bench)


RECIPE = (OwnBlock, recipe)
