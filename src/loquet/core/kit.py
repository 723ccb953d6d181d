"""The kit: everything that the devices need and that is not on their boards, and where each of it stands."""

from collections.abc import Iterator
from typing import Literal

from loquet.core.brief import Brief, Thing
from loquet.core.brief.thing import KitItem
from loquet.core.design import Bought, Design
from loquet.core.frozen import Frozen
from loquet.core.library import Library
from loquet.core.parts.wire import USUAL_MM, wire_working
from loquet.core.power.lasting import peak_at_source
from loquet.core.powering import made_of
from loquet.core.provenance import Working

KitState = Literal["missing", "bought", "in the drawer"]
MAKING = (
    KitItem(
        "making", "solder wire, lead-free, 0.5 mm, with flux inside", 1, "parts fitted by hand"
    ),
    KitItem("making", "isopropanol and a brush", 1, "takes the flux off"),
)
PASTE = KitItem("making", "solder paste, lead-free, and a stencil", 1, "surface parts on a plate")


class KitLine(Frozen):
    """A line of the kit: what to buy, how many for all devices, what for, where it stands, and what was really bought."""

    group: str
    what: str
    count: int
    why: str
    state: KitState = "missing"
    bought: Bought | None = None


class Kit(Frozen):
    """All lines by group, and the workings of the wires."""

    lines: tuple[KitLine, ...]
    workings: tuple[Working, ...]


def kit_of(design: Design, library: Library) -> Kit:
    """The kit for so many devices as the brief wants; equal things become one line, tools and stuff for making count once."""
    brief = design.brief
    merged: dict[tuple[str, str], KitLine] = {}
    for item, times in items_of(brief, library):
        key = (item.group, item.what)
        before = merged.get(key)
        whys = [] if before is None else before.why.split(", ")
        whys += [] if item.why in whys else [item.why]
        merged[key] = KitLine(
            group=item.group,
            what=item.what,
            count=(before.count if before else 0) + item.count * times,
            why=", ".join(whys),
            state=design.choices.kit.get(item.what, "missing"),
            bought=design.choices.bought.get(item.what),
        )
    return Kit(lines=tuple(merged.values()), workings=wires_of(brief, library))


def items_of(brief: Brief, library: Library) -> Iterator[tuple[KitItem, int]]:
    """Every item with how many times it is needed."""
    for thing in brief.things:
        for item in thing.kit():
            yield item, 1 if "one for all" in item.why else brief.quantity
    yield from ((item, brief.quantity) for item in cables_of(brief, library))
    yield from ((item, 1) for item in (*MAKING, PASTE))


def cables_of(brief: Brief, library: Library) -> list[KitItem]:
    """For every link between boards a cable, or, where its ends are plugged together, sockets in place of the posts at one of them."""
    ends: dict[str, list[Thing]] = {}
    for thing in brief.things:
        joint = thing.joint()
        if joint is not None and thing.part in library.parts:
            ends.setdefault(joint.word, []).append(thing)
    return [link_item(word, pair, library) for word, pair in ends.items() if len(pair) == 2]


def link_item(word: str, pair: list[Thing], library: Library) -> KitItem:
    """What joins the two ends of a link; two rows of posts do not mate."""
    joint, posts = pair[1].joint(), library.parts[pair[1].part].short
    if joint is not None and joint.plugged:
        what = f"row of sockets in place of the posts at {pair[1].name}: {posts}, sockets"
        return KitItem("leads and cables", what, 1, f"link {word}; posts and posts do not mate")
    what = f"cable with sockets at both ends for: {posts}"
    return KitItem("leads and cables", what, 1, f"link {word}; pin n on pin n")


def wires_of(brief: Brief, library: Library) -> tuple[Working, ...]:
    """The wires from each source to its board."""
    return tuple(
        wire_working(made.feeder.name, peak_at_source(made), USUAL_MM)
        for made in made_of(brief, library)
        if made.feeder and made.supply and made.feeder.kit()
    )
