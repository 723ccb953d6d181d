"""What all edits share: refusing with a sentence, and checking what an edit made of the brief."""

from pydantic import ValidationError

from loquet.core.brief import Brief, BriefError
from loquet.core.brief.reading import brief_from_plain
from loquet.core.brief.seats import control_seats
from loquet.core.design import Choices, Design
from loquet.core.pins.needs import needs_of


class EditRefused(Exception):
    """An edit that cannot be made: why, and the way out."""

    def __init__(self, why: str, way_out: str) -> None:
        super().__init__(f"{why} {way_out}")
        self.why, self.way_out = why, way_out


def checked(before: Design, after: Design) -> Design:
    """The edited design, its brief checked again from its plain values; choices for things that are gone are dropped."""
    if after.brief == before.brief:
        return after
    try:
        brief = brief_from_plain(after.brief.model_dump(mode="json"))
    except BriefError as error:
        raise EditRefused(f"{error.place} {error.problem}.", error.way_out) from None
    return after.model_copy(
        update={"brief": brief, "choices": without_the_gone(before, after, brief)}
    )


def without_the_gone(design_before: Design, design: Design, brief: Brief) -> Choices:
    """Choices without locks and seats of controls that no longer exist, and without placed targets of what was moved; those of signals that a scheme no longer has go too."""
    choices = design.choices
    signals, roles = {need.signal for need in needs_of(brief)}, set(control_seats(brief))
    kinds = {"button", "pad", "stick", "trigger", "encoder", "slider", "touch"}
    locks = {s: p for s, p in choices.pin_locks.items() if s in signals}
    places = {n.signal: n.target for n in needs_of(design_before.brief)}
    moved = {n.signal for n in needs_of(brief) if places.get(n.signal) != n.target}
    targets = {s: t for s, t in choices.pin_targets.items() if s in signals and s not in moved}
    seats = {
        r: s for r, s in choices.part_seats.items() if r.split(":")[0] not in kinds or r in roles
    }
    return choices.model_copy(
        update={"pin_locks": locks, "part_seats": seats, "pin_targets": targets}
    )


def validated(model: type[Brief], values: dict[str, object]) -> Brief:
    """A brief from changed values; raises EditRefused."""
    try:
        return model.model_validate(values)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        raise EditRefused(
            f"{'.'.join(str(s) for s in first['loc'])}: {first['msg']}.", "Give another value."
        ) from None
