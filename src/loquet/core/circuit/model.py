"""The circuit: components with their pads on nets, and nets with their width class."""

from dataclasses import dataclass, field
from typing import Literal

from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Working

NetKind = Literal["signal", "supply", "ground", "switched"]
GROUND = "GROUND"
JOIN = "JOIN_"
"""How nets begin that only parts share which are joined by hand; those that end in `_PLUS` and
`_MINUS` are a pair.
"""


class Component(Frozen):
    """A part on a board.

    `role` never changes; `ref` is numbered anew; `pads` maps pad numbers to nets; `thing` is what
    it belongs to.

    `sits_in` names catalogue parts that are soldered in its place, and into which it is put.
    `near_role` and `near_pad` name the pad that it must sit close to. `printed` is its name on the
    legend where that is more than its reference. `bare` is plain copper that nobody buys or fits;
    `polar` wants plus and minus printed on it, `on_pad` is the pad towards which its slider stands
    when it is on. `working` is the figure that gives its value.
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
    thing: str = ""
    board: str = ""
    printed: str = ""
    bare: bool = False
    sits_in: tuple[str, ...] = ()
    polar: bool = False
    on_pad: str = ""
    working: str = ""

    @property
    def is_chip(self) -> bool:
        """Whether it is a microcontroller of the data set."""
        return self.part.startswith(CHIP_PART)


CHIP_PART = "chip:"


class Net(Frozen):
    """A net and the pads on it, as (reference, pad number); a `switched` one jumps at the coil of a
    converter, and is short, wide and on one side.
    """

    name: str
    kind: NetKind
    pads: tuple[tuple[str, str], ...]


class Circuit(Frozen):
    """All components in reference order and all nets by name; `misfits` are changes by hand that do
    not fit any more.
    """

    components: tuple[Component, ...]
    nets: tuple[Net, ...]
    workings: tuple[Working, ...]
    misfits: tuple[str, ...] = ()

    def component(self, ref: str) -> Component:
        """The component of that reference; raises KeyError."""
        for component in self.components:
            if component.ref == ref:
                return component
        raise KeyError(ref)

    def on(self, board: str) -> "Circuit":
        """What of the circuit lies on one board: its components, and its nets with the pads that
        are there.
        """
        here = tuple(c for c in self.components if c.board == board)
        if len(here) == len(self.components):
            return self
        refs = {c.ref for c in here}
        nets = (
            n.model_copy(update={"pads": tuple(pad for pad in n.pads if pad[0] in refs)})
            for n in self.nets
        )
        return self.model_copy(
            update={"components": here, "nets": tuple(n for n in nets if n.pads)}
        )


@dataclass(frozen=True)
class Fragment:
    """What a recipe gives: the thing's own components, what stands around them, the kinds of the
    nets it makes, and its workings.
    """

    components: tuple[Component, ...]
    kinds: dict[str, NetKind] = field(default_factory=dict)
    workings: tuple[Working, ...] = ()
    around: tuple[Component, ...] = ()


class RecipeNotPossible(Exception):
    """A recipe that cannot meet its need: the limit, and the nearest that would work."""

    def __init__(self, need: str, limit: str, nearest: str) -> None:
        super().__init__(f"{need}: {limit}. {nearest}")
        self.need, self.limit, self.nearest = need, limit, nearest
