"""What an amplifier with a speaker asks."""

from loquet.core.brief.kinds.speaker import Speaker
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need, NeedKind

SOUND_BUS: tuple[tuple[str, NeedKind], ...] = (
    ("clock", "sound clock"),
    ("word", "sound word"),
    ("data", "sound data"),
)


def needs(thing: Speaker, ask: Asking) -> list[Need]:
    """The feed of the amplifier, its mute line and a volume control."""
    found = feed(thing, ask)
    if thing.mute_line:
        found.append(ask.need("mute", "output", f"{thing.name} mute", extra=True))
    if thing.volume:
        found.append(ask.need("volume", "analogue", "volume"))
    return [n.but(load="sounder") for n in found]


def feed(thing: Speaker, ask: Asking) -> list[Need]:
    """What carries the sound."""
    match thing.feed_by:
        case "converter":
            return [ask.need("feed", "converter output", f"{thing.name} feed")]
        case "timer":
            return [ask.need("feed", "timer", f"{thing.name} feed", rate="sound")]
        case "sound bus":
            bus = f"sound of {thing.name}"
            return [ask.need(n, k, f"sound {n}", bus=bus) for n, k in SOUND_BUS]


NEEDS = (Speaker, needs)
