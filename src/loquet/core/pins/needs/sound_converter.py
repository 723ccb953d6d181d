"""What a digital sound converter asks."""

from loquet.core.brief.kinds.sound_converter import SoundConverter
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need
from loquet.core.pins.needs.speaker import SOUND_BUS


def needs(thing: SoundConverter, ask: Asking) -> list[Need]:
    """Three lines of a sound bus."""
    bus = f"sound of {thing.name}"
    return [ask.need(n, k, f"{thing.name} {n}", bus=bus) for n, k in SOUND_BUS]


NEEDS = (SoundConverter, needs)
