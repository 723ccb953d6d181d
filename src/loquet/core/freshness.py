"""What each stage reads, and which slices have gone stale: made from something else than what now
stands before them.
"""

from collections.abc import Callable, Iterator
from dataclasses import asdict
from typing import Any

from loquet.core.brief import Brief
from loquet.core.brief.making import USUAL_COPPER_UM
from loquet.core.design import SLICES, Design, SliceName, subjects_of
from loquet.core.plain.frozen import Frozen, canonical, digest_of, digest_of_text
from loquet.core.plain.remembering import Remembered

ROOM = {"near_room_mm": True, "far_room_mm": True}
NOT_DRAWN: Any = {
    **dict.fromkeys(("quantity", "wanted_by", "name", "purpose", "making"), True),
    "boards": {"__all__": {**ROOM, "copper_layers": True, "both_sides": True}},
}
BEFORE: dict[SliceName, tuple[SliceName, ...]] = {
    "pins": (),
    "circuit": ("pins",),
    "placement": ("circuit",),
    "routing": ("circuit", "placement"),
    "pour": ("circuit", "placement", "routing"),
}


Texts = dict[str, str]
"""What a stage reads, by name, as canonical JSON."""
TEXTS: Remembered[str] = Remembered(256)


def inputs_digest(design: Design, stage: SliceName, subject: str) -> str:
    """Digest of everything a stage reads for a subject."""
    return digest_of_text(whole_text(INPUTS[stage](design, subject)))


def whole_text(texts: Texts) -> str:
    """Named pieces of canonical JSON as one object of canonical JSON."""
    return "{" + ",".join(f"{canonical(name)}:{texts[name]}" for name in sorted(texts)) + "}"


def kept_text(value: object, plain: Callable[[], Any], name: str = "") -> str:
    """Canonical JSON of what is read of a value, written once for each value."""
    return TEXTS.of((value,), lambda: canonical(plain()), name)


def kept_digest(value: Frozen | None) -> str:
    """The digest of a value as canonical JSON, worked out once for each value; null where there is
    none.
    """
    return "null" if value is None else kept_text(value, lambda: digest_of(value), "digest")


def brief_text(brief: Brief) -> str:
    """What pins and circuit read of a brief."""
    return kept_text(brief, lambda: brief.model_dump(mode="json", exclude=NOT_DRAWN), "drawn")


def plan_inputs(design: Design, subject: str) -> Texts:
    """The pins read the brief, the locks and the placed targets."""
    choices = design.choices
    return {
        "brief": brief_text(design.brief),
        "locks": canonical(choices.pin_locks),
        "targets": canonical(choices.pin_targets),
    }


def circuit_inputs(design: Design, subject: str) -> Texts:
    """The circuit reads the brief, every plan, what was changed by hand, and measured pin
    orders.
    """
    choices = design.choices
    by_hand = [change.model_dump(mode="json") for change in choices.by_hand]
    plans = {name: kept_digest(made.value) for name, made in design.pins.items()}
    return {
        **({"by_hand": canonical(by_hand)} if by_hand else {}),
        **({"pin_orders": canonical(choices.pin_orders)} if choices.pin_orders else {}),
        **({"shelf": shelf_text(design)} if choices.shelf else {}),
        **({"preferred": canonical(choices.preferred)} if choices.preferred else {}),
        "brief": brief_text(design.brief),
        "pins": whole_text(plans),
    }


def shelf_text(design: Design) -> str:
    """The parts of one's own that a project took."""
    shelf = design.choices.shelf
    return kept_text(shelf, lambda: {key: digest_of(part) for key, part in shelf.items()})


def own_parts_on(design: Design, board: str) -> Texts:
    """The parts of one's own that lie on a board."""
    made = next(iter(design.circuit.values()), None)
    shelf = design.choices.shelf
    if not shelf or made is None:
        return {}
    used = {c.part for c in made.value.on(board).components} & shelf.keys()
    return {"shelf": canonical({key: digest_of(shelf[key]) for key in used})} if used else {}


def board_inputs(design: Design, subject: str) -> Texts:
    """A board reads its outline, the things on it, and its part of the circuit."""
    brief, made = design.brief, next(iter(design.circuit.values()), None)
    board, circuit = brief.board(subject), made.value if made else None
    return {
        **own_parts_on(design, subject),
        "board": canonical(board.model_dump(mode="json", exclude=ROOM)),
        "things": kept_text(
            brief, lambda: [thing.model_dump(mode="json") for thing in brief.on(subject)], subject
        ),
        "circuit": (
            kept_text(circuit, lambda: digest_of(circuit.on(subject)), f"on {subject}")
            if circuit
            else "null"
        ),
    }


def placement_inputs(design: Design, subject: str) -> Texts:
    """Placing reads the board and the seats that a person chose."""
    seats = design.choices.part_seats
    number = design.arrangement(subject)
    return {
        **board_inputs(design, subject),
        **({"arrangement": canonical(number)} if number > 1 else {}),
        "seats": kept_text(
            seats, lambda: {r: seat.model_dump(mode="json") for r, seat in seats.items()}
        ),
    }


def routing_inputs(design: Design, subject: str) -> Texts:
    """Routing reads the placed board, the house, and what a person drew."""
    wires, copper = design.choices.wires.get(subject), design.brief.making.copper_um
    return {
        **({"wires": kept_digest(wires)} if wires else {}),
        **board_inputs(design, subject),
        "placement": slice_digest(design, "placement", subject),
        "house": canonical(design.choices.house),
        **own_rules(design),
        **({"copper": canonical(copper)} if copper != USUAL_COPPER_UM else {}),
    }


def own_rules(design: Design) -> Texts:
    """What a house of one's own can draw."""
    house = design.choices.own_house
    if house is None:
        return {}
    rules = house.rules(design.brief.making.copper_um)
    return {"own_house": canonical(asdict(rules))}


def pour_inputs(design: Design, subject: str) -> Texts:
    """Pouring reads the routed board, and what is to be poured beside ground."""
    routed, choice = slice_digest(design, "routing", subject), design.choices.pours.get(subject)
    return {
        **({"pour": kept_digest(choice)} if choice else {}),
        **routing_inputs(design, subject),
        "routing": routed,
    }


def slice_digest(design: Design, name: SliceName, subject: str) -> str:
    """The digest of a slice as it stands, as canonical JSON."""
    made = getattr(design, name).get(subject)
    return kept_digest(made.value if made else None)


def each_slice(brief: Brief) -> Iterator[tuple[SliceName, str]]:
    """Every slice of a design with its subject, in the order in which they are made."""
    return ((name, subject) for name in SLICES for subject in subjects_of(brief, name))


def stale_subjects(design: Design) -> tuple[tuple[SliceName, str], ...]:
    """Slices that are missing, or made from something else than what now stands before them, and
    all that stand on those.
    """
    stale: list[tuple[SliceName, str]] = []
    for name, subject in each_slice(design.brief):
        made = getattr(design, name).get(subject)
        if (
            made is None
            or stands_on_stale(name, subject, stale)
            or made.made_from != inputs_digest(design, name, subject)
        ):
            stale.append((name, subject))
    return tuple(stale)


def stands_on_stale(name: SliceName, subject: str, stale: list[tuple[SliceName, str]]) -> bool:
    """Whether anything before a slice, on the same board where it is of a board, is stale."""
    before = BEFORE[name]
    boards = ("placement", "routing", "pour")
    return any(s in before and (s not in boards or other == subject) for s, other in stale)


def stale_slices(design: Design) -> tuple[SliceName, ...]:
    """Names of slices of which any subject is stale, in order."""
    found = {name for name, _ in stale_subjects(design)}
    if not design.brief.brain:
        found.add("pins")
    return tuple(name for name in SLICES if name in found)


INPUTS: dict[SliceName, Callable[[Design, str], Texts]] = {
    "pins": plan_inputs,
    "circuit": circuit_inputs,
    "placement": placement_inputs,
    "routing": routing_inputs,
    "pour": pour_inputs,
}
