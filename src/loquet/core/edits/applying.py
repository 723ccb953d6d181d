"""What all edits share: refusing with a sentence, finding things, and checking what an edit made of
the brief.
"""

import re
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
    """A thing with some fields changed, by its own validation; raises EditRefused naming the
    field.
    """
    try:
        return type(thing).model_validate({**thing.model_dump(mode="json"), **changes})
    except ValidationError as error:
        raise refused_value(thing.name, error) from None


UNITS = re.compile(r"_(mm|ma|mah|v|hz|khz|mhz|deg|pf|ohm|nm|um)$")
NAMES = {"x": "across", "y": "up", "turn": "turned", "place": ""}


def field_words(name: str) -> str:
    """A field as a person reads it: `charge_ma` as `charge`, `x_mm` as `across`."""
    plain = UNITS.sub("", name)
    return NAMES.get(plain, plain.replace("_", " "))


PLAINER = (
    ("less than or equal to", "at most"),
    ("greater than or equal to", "at least"),
    ("extra inputs are not permitted", "there is no such field"),
    ("field required", "it is missing"),
)


def refused_value(name: str, error: ValidationError) -> EditRefused:
    """What a value that its field does not take is refused with: the field in words, the value, and
    what it may be.
    """
    first = error.errors(include_url=False)[0]
    steps = [field_words(str(step)) for step in first["loc"]]
    field = " ".join(step for step in steps if step)
    message = first["msg"].removeprefix("Value error, ").removeprefix("Input ")
    given = first.get("input")
    shown = f" {given!r}" if isinstance(given, int | float | str) and len(str(given)) < 30 else ""
    what = (
        f"{field[:1].upper()}{field[1:]}{shown} of {name}" if field else name[:1].upper() + name[1:]
    )
    said = f"{message[:1].lower()}{message[1:]}".replace("should be", "must be")
    for plain, better in PLAINER:
        said = said.replace(plain, better)
    return EditRefused(
        f"{what}: it {said}." if said.startswith("must") else f"{what}: {said}.",
        "Give another value.",
    )


def place_words(place: str) -> str:
    """Where in a brief, as a person at the screen reads it: `things[2] 'dome' charge_ma` as `Dome,
    charge`.
    """
    named = re.fullmatch(r"things\[\d+\](?: '([^']*)')?[ .]?(.*)", place)
    if not named:
        return ", ".join(
            field_words(step) for step in re.sub(r"\[\d+\]", "", place).split(".")
        ).capitalize()
    name, rest = named.group(1) or "A thing", field_words(named.group(2).split(".")[-1])
    return f"{name[:1].upper()}{name[1:]}{', ' + rest if rest and rest != 'name' else ''}"


def checked(before: Design, after: Design) -> Design:
    """The edited design, its brief checked again from its plain values; choices for things that are
    gone are dropped.
    """
    if after.brief == before.brief:
        return after
    try:
        brief = brief_from_plain(after.brief.model_dump(mode="json"))
    except BriefError as error:
        raise EditRefused(f"{place_words(error.place)} {error.problem}.", error.way_out) from None
    kept = without_the_gone(before.brief, brief, after.choices)
    return after.model_copy(update={"brief": brief, "choices": kept})


def without_the_gone(before: Brief, brief: Brief, choices: Choices) -> Choices:
    """Choices without locks of signals and seats of pieces that no longer exist, and without placed
    targets of what was moved.
    """
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
