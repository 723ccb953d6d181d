"""Which parts of a device somebody has to make sure of before they are soldered, and the card that
tells how.
"""

from loquet.core.design import Confirmed, Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import catalogue_order, project_library
from loquet.core.parts.measuring import Probe, probes_of, screen_probes
from loquet.core.parts.own import OWN
from loquet.core.plain.frozen import Frozen

LOOK_ALIKES = ("resistive stick", "magnetic stick", "magnetic trigger", "slide trigger")


class MeasuringCard(Frozen):
    """A part with its pins in order (`usual` as the catalogue has them), why it has to be made sure
    of, what to measure, and how it was made sure of, where it was.
    """

    part: str
    title: str
    things: tuple[str, ...]
    why: str
    pins: tuple[tuple[str, str], ...]
    usual: tuple[tuple[str, str], ...]
    probes: tuple[Probe, ...]
    confirmed: Confirmed | None


def cards_of(design: Design, library: Library) -> tuple[MeasuringCard, ...]:
    """A card for every part whose look-alikes differ, and for every part of which nobody knows the
    pins.
    """
    found: dict[str, MeasuringCard] = {}
    usual, library = library, project_library(design, library)
    for thing in design.brief.things:
        display = thing.display()
        shown = [display.part] if display else []
        for part_id in (*shown, *(body.part for body in thing.bodies() if body.part)):
            card = card_of(part_id, design, library)
            if card is not None:
                order = tuple(catalogue_order(part_id, usual).items())
                card = card.model_copy(update={"usual": order})
                before = found.get(part_id, card)
                found[part_id] = card.model_copy(update={"things": (*before.things, thing.name)})
    return tuple(found.values())


def card_of(part_id: str, design: Design, library: Library) -> MeasuringCard | None:
    """The card of a part; nothing for one that is known well enough."""
    confirmed = design.choices.confirmed.get(part_id)
    if part_id in library.screens:
        module = library.screens[part_id]
        return MeasuringCard(
            part=part_id,
            title=module.description,
            things=(),
            why="screen modules that look alike have other orders of pins",
            pins=tuple((str(i + 1), name) for i, name in enumerate(module.pins)),
            usual=(),
            probes=screen_probes(module),
            confirmed=confirmed,
        )
    part = library.parts.get(part_id)
    if (
        part is None
        or part_id.startswith(OWN)
        or (part.kind not in LOOK_ALIKES and part.evidence != "none")
    ):
        return None
    alike = part.kind in LOOK_ALIKES
    return MeasuringCard(
        part=part_id,
        title=part.description,
        things=(),
        why=(
            f"{part.kind}s that look alike have other orders of pins"
            if alike
            else "nobody knows its pins"
        ),
        pins=tuple(part.pin_names.items()),
        usual=(),
        probes=probes_of(part),
        confirmed=confirmed,
    )
