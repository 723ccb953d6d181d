"""What all edits share: refusing with a sentence, finding things, and checking what an edit made of the brief."""

from typing import Any

from pydantic import ValidationError

from loquet.core.brief import Brief, BriefError, Thing, brief_from_plain
from loquet.core.brief.keys import keys_of
from loquet.core.design import Choices, Design
from loquet.core.pins.needing import needs_of


class EditRefused(Exception):
    """An edit that cannot be made: why, and the way out."""

    def __init__(self, why: str, way_out: str) -> None:
        super().__init__(f"{why} {way_out}")
        self.why, self.way_out = why, way_out


def with_brief(design: Design, **changes: Any) -> Design:
    """The design with changed fields of its brief, which `checked` looks at afterwards."""
    return design.model_copy(update={"brief": design.brief.model_copy(update=changes)})


def with_choices(design: Design, **changes: Any) -> Design:
    """The design with changed choices."""
    return design.model_copy(update={"choices": design.choices.model_copy(update=changes)})


def found(brief: Brief, name: str) -> Thing:
    """The thing of that name; raises EditRefused."""
    try:
        return brief.thing(name)
    except KeyError:
        raise EditRefused(f"There is no '{name}'.", "It may have been removed meanwhile.") from None


def changed(thing: Thing, changes: dict[str, Any]) -> Thing:
    """A thing with some fields changed, by its own validation; raises EditRefused naming the field."""
    try:
        return type(thing).model_validate({**thing.model_dump(mode="json"), **changes})
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        field = " ".join(str(step) for step in first["loc"]) or "It"
        message = first["msg"][0].lower() + first["msg"][1:]
        raise EditRefused(f"{field} of {thing.name}: {message}.", "Give another value.") from None


def checked(before: Design, after: Design) -> Design:
    """The edited design, its brief checked again from its plain values; choices for things that are gone are dropped."""
    if after.brief == before.brief:
        return after
    try:
        brief = brief_from_plain(after.brief.model_dump(mode="json"))
    except BriefError as error:
        raise EditRefused(f"{error.place} {error.problem}.", error.way_out) from None
    kept = without_the_gone(before.brief, brief, after.choices)
    return after.model_copy(update={"brief": brief, "choices": kept})


def without_the_gone(before: Brief, brief: Brief, choices: Choices) -> Choices:
    """Choices without locks of signals and seats of pieces that no longer exist, and without placed targets of what was moved."""
    places = {n.signal: n.target for n in needs_of(before)}
    needs = needs_of(brief)
    signals = {n.signal for n in needs}
    moved = {n.signal for n in needs if places.get(n.signal, n.target) != n.target}
    gone = pieces_of(before) - pieces_of(brief)
    return choices.model_copy(
        update={
            "pin_locks": {s: p for s, p in choices.pin_locks.items() if s in signals},
            "part_seats": {r: s for r, s in choices.part_seats.items() if r not in gone},
            "pin_targets": {
                s: t for s, t in choices.pin_targets.items() if s in signals and s not in moved
            },
        }
    )


def pieces_of(brief: Brief) -> set[str]:
    """Roles of all pieces of all things."""
    return {thing.role(body.piece) for thing in brief.things for body in thing.bodies()}


def without_keys(brief: Brief, gone: set[str]) -> dict[str, Any]:
    """Scheme and chords without some keys, as changes of the brief."""
    scheme, chords = brief.key_scheme, brief.chords

    def kept(keys: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(key for key in keys if key not in gone)

    groups = tuple(kept(group) for group in chords.groups)
    return {
        "key_scheme": scheme.model_copy(
            update={"direct": kept(scheme.direct), "diodes": kept(scheme.diodes)}
        ),
        "chords": chords.model_copy(update={"groups": groups}),
    }


def keys_of_things(brief: Brief, names: set[str]) -> set[str]:
    """Ids of the keys of some things."""
    return {key.id for key in keys_of(brief) if key.thing in names}
