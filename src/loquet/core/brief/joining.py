"""Several sources on one rail: the higher one feeds it, and none feeds another."""

from dataclasses import replace

from loquet.core.brief.model import Brief
from loquet.core.brief.thing import Supply, Thing

LOST_V = 0.5


def joined_by(brief: Brief, thing: Thing) -> Thing | None:
    """The source whose rail a source feeds as well, since its `rail` names it; nothing for one with
    a rail of its own.
    """
    if not is_source(thing) or thing.rail in ("", thing.name):
        return None
    host = next((t for t in brief.things if t.name == thing.rail), None)
    return host if host is not None and is_source(host) and host.rail in ("", host.name) else None


def is_source(thing: Thing) -> bool:
    """Whether it brings power of its own."""
    return thing.source() is not None and thing.feed() is not None and not thing.LOWER_FEED


def switched_source(brief: Brief) -> Thing | None:
    """The source in whose way a switch stands: the first with a rail of its own that comes in over
    a board. A host on its own plug is none: its volts are made elsewhere.
    """
    return next((t for t in brief.things if is_source(t) and joined_by(brief, t) is None), None)


def joiners(brief: Brief, feeder: Thing) -> tuple[Thing, ...]:
    """Sources that feed the rail of another one as well."""
    return tuple(t for t in brief.things if joined_by(brief, t) is feeder)


def together(brief: Brief, feeder: Thing) -> Supply | None:
    """What may stand before the converter of a rail: its own source, and the volts of those that
    join it.
    """
    supply = feeder.source()
    others = [source for t in joiners(brief, feeder) if (source := t.source()) is not None]
    if supply is None or not others:
        return supply
    return replace(
        supply,
        empty_v=min(supply.empty_v, *(o.empty_v - LOST_V for o in others)),
        fresh_v=max(supply.fresh_v, *(o.fresh_v for o in others)),
    )
