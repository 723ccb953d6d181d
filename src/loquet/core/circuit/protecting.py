"""What protects a device and those who use it: each with what it keeps off and its price, or why it
was left out.
"""

from collections.abc import Iterator, Mapping
from typing import Literal

from loquet.core.brief import Brief
from loquet.core.circuit.by_hand import HandChange, LeaveOut, belongs
from loquet.core.circuit.model import Circuit, Component
from loquet.core.parts import Part
from loquet.core.plain.frozen import Frozen

Standing = Literal["on the board", "in the kit", "left out"]
AGAINST = {
    "turned guard": "a cell that is put in backwards, beside a charger",
    "reverse guard": "a source that is put in the wrong way round",
    "one way": "current that flows back into a source",
    "guard array": "discharges of the hand and the plug",
    "volts switch": "volts that the host did not agree to",
    "fuse": "a short behind the plug, which heats the lead",
}
"""By the end of its role what a protection keeps off; common practice."""
IN_THE_CELL = "short, overcharge and deep discharge of the cell"


class Protection(Frozen):
    """A protection: its role, its name, the thing it is for, what it keeps off, its parts by
    reference, their price for a device in cents, where it stands, and why it was left out.

    `change` is the place of that decision among the changes by hand.
    """

    role: str
    title: str
    thing: str
    against: str
    refs: tuple[str, ...] = ()
    price_cents: float = 0.0
    standing: Standing = "on the board"
    reason: str = ""
    change: int | None = None


def is_protection(component: Component) -> bool:
    """Whether a part is there for nothing else."""
    return kind_of(component.role) != ""


def kind_of(role: str) -> str:
    """What sort of protection the part of a role is; nothing where it is none."""
    return next(
        (end for end in AGAINST if f" {role}".endswith(f" {end}") or role.startswith(f"{end} of ")),
        "",
    )


def named(role: str, thing: str) -> str:
    """A protection by what it is and what it is for."""
    return f"{kind_of(role) or role} of {thing}" if thing else role


def owner(brief: Brief, role: str) -> str:
    """The thing that the protection of a role is for; nothing where that is gone."""
    for thing in brief.things:
        lone = role in AGAINST and thing.name == thing.WORD and thing.source() is not None
        if lone or belongs(role, thing.role()) or role.endswith(f" of {thing.name}"):
            return thing.name
    return ""


def protections(
    brief: Brief, circuit: Circuit, parts: Mapping[str, Part], changes: tuple[HandChange, ...]
) -> tuple[Protection, ...]:
    """All of a device, in the order of its parts; then what the kit brings, and what was left
    out.
    """
    decided = tuple(left_out(brief, changes))
    without = {row.role for row in decided}
    fitted = [c for c in circuit.components if is_protection(c) and c.role not in without]
    return (*(on_the_board(c, circuit, parts) for c in fitted), *in_the_kit(brief), *decided)


def on_the_board(main: Component, circuit: Circuit, parts: Mapping[str, Part]) -> Protection:
    """One that is fitted, with what stands around it."""
    rows = [c for c in circuit.components if belongs(c.role, main.role)]
    price = sum(parts[c.part].price_cents for c in rows if c.part in parts)
    return Protection(
        role=main.role,
        title=named(main.role, main.thing),
        thing=main.thing,
        against=AGAINST[kind_of(main.role)],
        refs=tuple(c.ref for c in rows),
        price_cents=round(price, 3),
    )


def in_the_kit(brief: Brief) -> Iterator[Protection]:
    """What a lithium cell is asked to bring with it."""
    for thing in brief.things:
        if thing.charging_ma():
            yield Protection(
                role=f"{thing.role()} own protection",
                title=f"protection in {thing.name} itself",
                thing=thing.name,
                against=IN_THE_CELL,
                standing="in the kit",
            )


def left_out(brief: Brief, changes: tuple[HandChange, ...]) -> Iterator[Protection]:
    """What somebody decided to do without."""
    for index, change in enumerate(changes):
        if isinstance(change, LeaveOut):
            thing = owner(brief, change.role)
            yield Protection(
                role=change.role,
                title=named(change.role, thing),
                thing=thing,
                against=AGAINST.get(kind_of(change.role), ""),
                standing="left out",
                reason=change.reason,
                change=index,
            )
