"""A part of one's own on its posts."""

from loquet.core.brief.kinds.own_part import OwnPart
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import own_posts
from loquet.core.circuit.model import Fragment


def recipe(thing: OwnPart, bench: Bench) -> Fragment:
    """Its posts in its own pin order."""
    return own_posts(thing, bench)


RECIPE = (OwnPart, recipe)
