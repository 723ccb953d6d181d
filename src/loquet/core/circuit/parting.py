"""Components written shortly: one of a block, at its place beside a pad of another, by the names of
its pins.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.circuit.model import GROUND, Component
from loquet.core.parts import Part


@dataclass(frozen=True)
class Near:
    """The pad of another part beside which a part must sit."""

    role: str
    pad: str


@dataclass(frozen=True)
class Drawer:
    """Makes the components of one block, on one board where that is said."""

    block: str
    parts: Mapping[str, Part]
    board: str = ""

    def take(
        self,
        role: str,
        part: str,
        words: tuple[str, str],
        pads: dict[str, str],
        near: Near | None = None,
    ) -> Component:
        """A component; `words` are its value and its purpose, pads are sorted by number."""
        return Component(
            role=role,
            part=part,
            block=self.block,
            value=words[0],
            purpose=words[1],
            pads=dict(sorted(pads.items(), key=lambda row: (len(row[0]), row[0]))),
            near_role=near.role if near else "",
            near_pad=near.pad if near else "",
            board=self.board,
        )

    def named(
        self, role: str, part: str, words: tuple[str, str], nets: Mapping[str, str]
    ) -> Component:
        """A part with nets by the names of its pins; a pin whose name has no net stays open."""
        pads = {pad: nets[name] for pad, name in self.parts[part].pin_names.items() if name in nets}
        return self.take(role, part, words, pads)

    def pad(self, part: str, name: str) -> str:
        """The first pad of that name; raises StopIteration."""
        return next(pad for pad, own in self.parts[part].pin_names.items() if own == name)

    def quiet(self, role: str, part: str, net: str, value: str = "100 nF") -> Component:
        """The capacitor at a chip's supply pin."""
        size = "capacitor-1608" if value.endswith("nF") or value == "1 µF" else "capacitor-2012"
        words = (value, f"Decoupling of {role}")
        near = Near(role, self.pad(part, "supply"))
        return self.take(f"{role} decoupling", size, words, {"1": net, "2": GROUND}, near)

    def resistor(
        self, role: str, value: str, purpose: str, ends: tuple[str, str], near: Near
    ) -> Component:
        """A resistor between two nets."""
        return self.take(
            role, "resistor-1608", (value, purpose), {"1": ends[0], "2": ends[1]}, near
        )
