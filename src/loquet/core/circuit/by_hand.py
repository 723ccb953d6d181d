"""What a person changed beside the recipes: parts added, pins connected or cut, nets renamed or
merged. It is applied again whenever the recipes ran, and what no longer fits is said.
"""

from collections.abc import Callable, Mapping, Set
from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.circuit.in_the_way import way_through
from loquet.core.circuit.model import GROUND, Component, Fragment, NetKind
from loquet.core.parts import Part, PartError, pattern_of
from loquet.core.plain.frozen import Frozen

BLOCK = "added"
NetName = Annotated[str, Field(pattern=r"^[A-Z][A-Z0-9_]{0,39}$")]
Role = Annotated[str, Field(min_length=1, max_length=80)]
Pad = Annotated[str, Field(pattern=r"^[A-Z0-9]{1,4}$")]


class AddPart(Frozen):
    """A part of the catalogue on nets by the numbers of its pads; `role` is its name, by which it
    is kept.
    """

    what: Literal["add part"] = "add part"
    role: Annotated[str, Field(pattern=r"^[a-z][a-z0-9 -]{0,39}$")]
    part: Annotated[str, Field(max_length=60)]
    value: Annotated[str, Field(max_length=24)] = ""
    pads: Annotated[dict[Pad, NetName], Field(min_length=1, max_length=80)]
    board: Annotated[str, Field(max_length=40)]

    @property
    def words(self) -> str:
        """What was done."""
        return f"{self.role} added"


class ConnectPin(Frozen):
    """A pin on another net than the recipe's."""

    what: Literal["connect"] = "connect"
    role: Role
    pad: Pad
    net: NetName

    @property
    def words(self) -> str:
        """What was done."""
        return f"pin {self.pad} of {self.role} on {self.net}"


class CutPin(Frozen):
    """A pin on no net."""

    what: Literal["cut"] = "cut"
    role: Role
    pad: Pad

    @property
    def words(self) -> str:
        """What was done."""
        return f"pin {self.pad} of {self.role} cut"


class RenameNet(Frozen):
    """Another name for a net."""

    what: Literal["rename"] = "rename"
    net: NetName
    to: NetName

    @property
    def words(self) -> str:
        """What was done."""
        return f"{self.net} is called {self.to}"


class MergeNets(Frozen):
    """A net joined to another, whose name and kind it takes."""

    what: Literal["merge"] = "merge"
    net: NetName
    into: NetName

    @property
    def words(self) -> str:
        """What was done."""
        return f"{self.net} joined to {self.into}"


class LeaveOut(Frozen):
    """A protection that is not fitted, with what stands around it, and why: what lay in its way is
    one net.
    """

    what: Literal["leave out"] = "leave out"
    role: Role
    reason: Annotated[str, Field(min_length=8, max_length=200)]

    @property
    def words(self) -> str:
        """What was done."""
        return f"{self.role} left out: {self.reason}"


HandChange = Annotated[
    AddPart | ConnectPin | CutPin | RenameNet | MergeNets | LeaveOut, Field(discriminator="what")
]


class Misfit(Exception):
    """A change that does not fit what the recipes made: why."""


def nets_in(fragments: list[Fragment]) -> set[str]:
    """Every net of these fragments."""
    return {net for f in fragments for c in f.components for net in c.pads.values()}


def on_components(
    fragments: list[Fragment], change: Callable[[Component], Component]
) -> list[Fragment]:
    """The fragments with every component changed."""
    return [replace(f, components=tuple(change(c) for c in f.components)) for f in fragments]


def with_changes(
    fragments: list[Fragment],
    changes: tuple[HandChange, ...],
    parts: Mapping[str, Part],
    boards: Set[str],
) -> tuple[list[Fragment], tuple[str, ...]]:
    """The fragments as a person changed them, in the order of the changes, and a sentence for each
    change that does not fit any more.
    """
    misfits = []
    for change in changes:
        try:
            fragments = with_change(fragments, change, parts, boards)
        except Misfit as error:
            misfits.append(f"{change.words}: {error}")
    return fragments, tuple(misfits)


def with_change(
    fragments: list[Fragment], change: HandChange, parts: Mapping[str, Part], boards: Set[str]
) -> list[Fragment]:
    """The fragments after one change; raises Misfit."""
    match change:
        case AddPart():
            if change.board not in boards:
                raise Misfit(f"there is no board {change.board} any more")
            return [*fragments, Fragment((added(fragments, change, parts),))]
        case ConnectPin():
            pads = {**pads_of(fragments, change, parts), change.pad: change.net}
            return with_pads(fragments, change.role, pads)
        case CutPin():
            pads = pads_of(fragments, change, parts)
            if change.pad not in pads:
                raise Misfit("there is nothing on that pin")
            return with_pads(fragments, change.role, without(pads, change.pad))
        case LeaveOut():
            return left_out(fragments, change, parts)
        case RenameNet():
            if change.to in nets_in(fragments):
                raise Misfit(f"there is a net {change.to} already")
            return moved(fragments, change.net, change.to)
        case MergeNets():
            if change.into not in nets_in(fragments):
                raise Misfit(f"there is no net {change.into}")
            return moved(fragments, change.net, change.into)


def left_out(
    fragments: list[Fragment], change: LeaveOut, parts: Mapping[str, Part]
) -> list[Fragment]:
    """The fragments without a protection; raises Misfit where there is none of that role."""
    rows = [c for f in fragments for c in f.components if belongs(c.role, change.role)]
    main = next((c for c in rows if c.role == change.role), None)
    if main is None or main.part not in parts:
        raise Misfit(f"there is no {change.role} any more")
    kept = [
        replace(f, components=tuple(c for c in f.components if c not in rows)) for f in fragments
    ]
    ends = way_through(main, parts[main.part])
    if ends is None or not set(ends) <= nets_in(kept) or ends[0] == ends[1]:
        return kept
    return moved(kept, *ends)


def belongs(role: str, to: str) -> bool:
    """Whether a part is another one or stands around it, by their roles."""
    return role == to or role.startswith(f"{to} ")


def without(pads: Mapping[str, str], pad: str) -> dict[str, str]:
    """Pads but one."""
    return {other: net for other, net in pads.items() if other != pad}


def added(fragments: list[Fragment], change: AddPart, parts: Mapping[str, Part]) -> Component:
    """The component of a part that is added; raises Misfit."""
    try:
        part = parts.get(change.part)
    except PartError as error:
        raise Misfit(f"part {error.part} {error.problem}") from None
    if part is None:
        raise Misfit(f"there is no part {change.part} in the catalogue")
    if any(c.role == change.role for f in fragments for c in f.components):
        raise Misfit("a part of that name is there already")
    for pad in change.pads:
        check_pad(part, pad)
    return Component(
        role=change.role,
        part=change.part,
        block=BLOCK,
        value=change.value or part.short,
        purpose="Added by hand",
        pads=dict(change.pads),
        board=change.board,
    )


def check_pad(part: Part, pad: str) -> None:
    """Raise Misfit where a part has no such pad."""
    numbers = {p.number for p in pattern_of(part.body).pads}
    if pad not in numbers:
        raise Misfit(f"{part.short} has no pad {pad}")


def pads_of(
    fragments: list[Fragment], change: ConnectPin | CutPin, parts: Mapping[str, Part]
) -> dict[str, str]:
    """The pads of the component that a change is about; raises Misfit."""
    for fragment in fragments:
        for component in fragment.components:
            if component.role == change.role:
                if not component.is_chip:
                    check_pad(parts[component.part], change.pad)
                return component.pads
    raise Misfit(f"there is no {change.role} any more")


def with_pads(fragments: list[Fragment], role: str, pads: dict[str, str]) -> list[Fragment]:
    """The fragments with other nets at one component."""
    return on_components(
        fragments, lambda c: c.model_copy(update={"pads": pads}) if c.role == role else c
    )


def moved(fragments: list[Fragment], net: str, to: str) -> list[Fragment]:
    """The fragments with one net under another name; a name that has a kind keeps it.

    Raises Misfit.
    """
    if net not in nets_in(fragments):
        raise Misfit(f"there is no net {net} any more")
    if net == GROUND:
        raise Misfit("ground keeps its name; join the other net to it")
    kinds: dict[str, NetKind] = {}
    for fragment in fragments:
        kinds |= fragment.kinds
    kind = kinds.get(to, kinds.get(net))
    renamed = on_components(
        fragments,
        lambda c: c.model_copy(
            update={"pads": {pad: to if on == net else on for pad, on in c.pads.items()}}
        ),
    )
    return [*renamed, Fragment((), {to: kind})] if kind else renamed
