"""What each stage reads, and which slices have gone stale: made from something else than what now stands before them."""

from collections.abc import Callable, Iterator
from typing import Any

from loquet.core.brief import Brief
from loquet.core.design import SLICES, Design, SliceName, subjects_of
from loquet.core.frozen import digest_of

ROOM = {"near_room_mm": True, "far_room_mm": True}
NOT_DRAWN: Any = {
    **dict.fromkeys(("quantity", "wanted_by", "name", "purpose"), True),
    "boards": {"__all__": {**ROOM, "copper_layers": True, "both_sides": True}},
}
BEFORE: dict[SliceName, tuple[SliceName, ...]] = {
    "pins": (),
    "circuit": ("pins",),
    "placement": ("circuit",),
    "routing": ("circuit", "placement"),
    "pour": ("circuit", "placement", "routing"),
}


def inputs_digest(design: Design, stage: SliceName, subject: str) -> str:
    """Digest of everything a stage reads for a subject."""
    return digest_of(INPUTS[stage](design, subject))


def plan_inputs(design: Design, subject: str) -> dict[str, Any]:
    """The pins read the brief, the locks and the placed targets."""
    return {
        "brief": design.brief.model_dump(mode="json", exclude=NOT_DRAWN),
        "locks": design.choices.pin_locks,
        "targets": design.choices.pin_targets,
    }


def circuit_inputs(design: Design, subject: str) -> dict[str, Any]:
    """The circuit reads the brief, every plan, what was changed by hand, and measured pin orders."""
    choices = design.choices
    by_hand = [change.model_dump(mode="json") for change in choices.by_hand]
    return {
        **({"by_hand": by_hand} if by_hand else {}),
        **({"pin_orders": choices.pin_orders} if choices.pin_orders else {}),
        "brief": design.brief.model_dump(mode="json", exclude=NOT_DRAWN),
        "pins": {name: digest_of(made.value) for name, made in design.pins.items()},
    }


def board_inputs(design: Design, subject: str) -> dict[str, Any]:
    """A board reads its outline, the things on it, and its part of the circuit."""
    brief, made = design.brief, next(iter(design.circuit.values()), None)
    return {
        "board": brief.board(subject).model_dump(mode="json", exclude=ROOM),
        "things": [thing.model_dump(mode="json") for thing in brief.on(subject)],
        "circuit": digest_of(made.value.on(subject)) if made else None,
    }


def placement_inputs(design: Design, subject: str) -> dict[str, Any]:
    """Placing reads the board and the seats that a person chose."""
    seats = {r: s.model_dump(mode="json") for r, s in design.choices.part_seats.items()}
    number = design.arrangement(subject)
    return {
        **board_inputs(design, subject),
        **({"arrangement": number} if number > 1 else {}),
        "seats": seats,
    }


def routing_inputs(design: Design, subject: str) -> dict[str, Any]:
    """Routing reads the placed board, the house, and what a person drew."""
    wires = design.choices.wires.get(subject)
    return {
        **({"wires": digest_of(wires)} if wires else {}),
        **board_inputs(design, subject),
        "placement": kept_digest(design, "placement", subject),
        "house": design.choices.house,
    }


def pour_inputs(design: Design, subject: str) -> dict[str, Any]:
    """Pouring reads the routed board."""
    routed = kept_digest(design, "routing", subject)
    return {**routing_inputs(design, subject), "routing": routed}


def kept_digest(design: Design, name: SliceName, subject: str) -> str | None:
    """The digest of a slice as it stands."""
    made = getattr(design, name).get(subject)
    return digest_of(made.value) if made else None


def each_slice(brief: Brief) -> Iterator[tuple[SliceName, str]]:
    """Every slice of a design with its subject, in the order in which they are made."""
    return ((name, subject) for name in SLICES for subject in subjects_of(brief, name))


def stale_subjects(design: Design) -> tuple[tuple[SliceName, str], ...]:
    """Slices that are missing, or made from something else than what now stands before them, and all that stand on those."""
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


INPUTS: dict[SliceName, Callable[[Design, str], dict[str, Any]]] = {
    "pins": plan_inputs,
    "circuit": circuit_inputs,
    "placement": placement_inputs,
    "routing": routing_inputs,
    "pour": pour_inputs,
}
