"""What of a device one brain reads, as a brief of its own: each brain's pins are planned as if the
others were not there.
"""

from functools import lru_cache

from loquet.core.brief.model import Brief
from loquet.core.brief.sense import plain_name
from loquet.core.brief.thing import Thing


def readers_of(brief: Brief, thing: Thing) -> tuple[str, ...]:
    """Names of the brains that read a thing: those it names, or the first one of the device."""
    first = brief.brain.name if brief.brain else ""
    return tuple(name or first for name in thing.read_by())


def mark_of(brief: Brief, brain: str) -> str:
    """What tells apart the lines that every brain has: nothing for the first brain, the name of
    another one.
    """
    return "" if not brief.brain or brain in ("", brief.brain.name) else brain


def marked(mark: str, signal: str) -> str:
    """A signal that every brain has one of, such as `row 1`, with its mark."""
    return f"{mark}:{signal}" if mark else signal


def net_mark(mark: str) -> str:
    """What goes before the nets of such lines."""
    return f"{plain_name(mark)}_" if mark else ""


@lru_cache(maxsize=64)
def share_of(brief: Brief, brain: str) -> Brief:
    """The brief with one brain and what it reads; sources and links stay, since they serve every
    brain. The whole brief where it has one brain only.
    """
    if len(brief.brains) < 2:
        return brief
    kept = []
    for thing in brief.things:
        reads = brain in readers_of(brief, thing)
        shared = thing.feed() is not None or thing.joint() is not None
        if thing.name == brain or (not thing.BRAIN and (reads or shared)):
            named = thing.brain or readers_of(brief, thing)[0]
            kept.append(thing.model_copy(update={"brain": "" if thing.BRAIN else named}))
    keys = {thing.role(c.piece) for thing in kept for c in thing.contacts()}
    scheme = brief.key_scheme
    return brief.model_copy(
        update={
            "things": tuple(kept),
            "key_scheme": scheme.model_copy(
                update={
                    "direct": tuple(k for k in scheme.direct if k in keys),
                    "diodes": tuple(k for k in scheme.diodes if k in keys),
                }
            ),
            "chords": brief.chords.model_copy(
                update={
                    "groups": tuple(
                        kept_keys
                        for group in brief.chords.groups
                        if len(kept_keys := tuple(k for k in group if k in keys)) > 1
                    )
                }
            ),
        }
    )
