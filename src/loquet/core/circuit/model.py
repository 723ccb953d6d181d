"""The circuit: components with their pads on nets, and nets with their width class."""

from dataclasses import dataclass, field
from typing import Literal

from loquet.core.frozen import Frozen
from loquet.core.provenance import Working

NetKind = Literal["signal", "supply", "ground"]
GROUND = "GROUND"
SUPPLY = "SUPPLY"


class Component(Frozen):
    """A part on the board. `role` never changes; `ref` is numbered anew; `pads` maps pad numbers to nets.

    `near_role` and `near_pad` name the pad that it must sit close to.
    """

    role: str
    ref: str = ""
    part: str
    block: str
    value: str = ""
    purpose: str
    pads: dict[str, str]
    near_role: str = ""
    near_pad: str = ""


class Net(Frozen):
    """A net and the pads on it, as (reference, pad number)."""

    name: str
    kind: NetKind
    pads: tuple[tuple[str, str], ...]


class Circuit(Frozen):
    """All components in reference order and all nets by name."""

    components: tuple[Component, ...]
    nets: tuple[Net, ...]
    workings: tuple[Working, ...]

    def component(self, ref: str) -> Component:
        """The component of that reference; raises KeyError."""
        for component in self.components:
            if component.ref == ref:
                return component
        raise KeyError(ref)


@dataclass(frozen=True)
class Fragment:
    """What a recipe gives: components, the kinds of the nets it makes, and its workings."""

    components: tuple[Component, ...]
    kinds: dict[str, NetKind] = field(default_factory=dict)
    workings: tuple[Working, ...] = ()


class RecipeNotPossible(Exception):
    """A recipe that cannot meet its need: the limit, and the nearest that would work."""

    def __init__(self, need: str, limit: str, nearest: str) -> None:
        super().__init__(f"{need}: {limit}. {nearest}")
        self.need, self.limit, self.nearest = need, limit, nearest
