"""Rails as values: every source of the brief makes one, and every thing that takes power names one
(the first, unless said).
"""

from dataclasses import dataclass, replace

from loquet.core.brief import Brief, Feed, Thing, plain_name
from loquet.core.brief.joining import joined_by
from loquet.core.provenance import Source

FIRST_NET = "SUPPLY"
NO_FEED = Feed(
    3.3, 3.3, 3.3, "no source yet", Source(kind="assumed", text="no source in the brief; 3.3 V")
)


@dataclass(frozen=True)
class Rail:
    """A rail: its name and net, volts empty, usual and fresh, what feeds it (a thing's name), how
    much it can give, in which modes it is up.
    """

    name: str
    net: str
    empty_v: float
    usual_v: float
    fresh_v: float
    fed_by: str
    words: str
    source: Source
    direct: bool
    limit_ma: float
    modes: tuple[str, ...] = ("on",)


def rails_of(brief: Brief) -> tuple[Rail, ...]:
    """A rail for each source, in the order of the brief, then those made from another rail, then
    those switched; one of assumed 3.3 V where there is no source.
    """
    fed = [
        (thing, feed)
        for thing in brief.things
        if (feed := thing.feed()) is not None and joined_by(brief, thing) is None
    ]
    fed.sort(key=lambda row: row[0].LOWER_FEED)
    found = [] if fed and not fed[0][0].LOWER_FEED else [rail("", FIRST_NET, NO_FEED)]
    for thing, feed in fed:
        found.append(rail(thing.name, net_of_rail(thing, len(found)), feed))
    for thing in (t for t in brief.things if t.PASSES):
        before = next((r for r in found if r.name == thing.rail), found[0])
        words = f"{before.words}, switched"
        name, rail_net = thing.name, net_of_rail(thing, len(found))
        found.append(replace(before, name=name, net=rail_net, fed_by=name, words=words))
    return tuple(found)


def net_of_rail(thing: Thing, index: int) -> str:
    """The net of a rail: the first one has the plain name, others that of their source."""
    return FIRST_NET if index == 0 else f"{FIRST_NET}_{plain_name(thing.name)}"


def rail(name: str, net: str, feed: Feed) -> Rail:
    """A rail from what a source gives."""
    return Rail(
        name=name or "rail",
        net=net,
        empty_v=feed.empty_v,
        usual_v=feed.usual_v,
        fresh_v=feed.fresh_v,
        fed_by=name,
        words=feed.words,
        source=feed.source,
        direct=feed.direct,
        limit_ma=feed.limit_ma,
    )


def rail_of(brief: Brief, thing: Thing | None = None) -> Rail:
    """The rail that a thing takes; where it names none, or one that is not there, the first of the
    volts that its axes ask for, or the first of all.
    """
    rails = rails_of(brief)
    wanted = thing.rail if thing else ""
    named = next((r for r in rails if r.name == wanted), None)
    asked = max((axis.supply_v for axis in thing.axes()), default=0.0) if thing else 0.0
    return named or next((r for r in rails if asked and r.usual_v == asked), rails[0])


def logic_rail_of(brief: Brief, brain: Thing | None) -> Rail | None:
    """The rail on which the lines of a brain live: the one that it takes, or, where it makes its
    own volts inside, the one that it gives or another of the same volts; nothing where there is
    none of them.
    """
    volts = brain.logic_v() if brain else 0.0
    if brain is None or not volts:
        return rail_of(brief, brain)
    rails = rails_of(brief)
    own = (rail for rail in rails if rail.fed_by == brain.name)
    alike = (rail for rail in rails if rail.usual_v == volts)
    return next(own, None) or next(alike, None)


def lines_v(brief: Brief, brain: Thing) -> float:
    """The usual volts of a brain's lines."""
    rail = logic_rail_of(brief, brain)
    return rail.usual_v if rail is not None else brain.logic_v()
