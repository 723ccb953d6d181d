"""Components written shortly: one of a block, at its place beside a pad of another, by the names of
its terminals.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.circuit.model import GROUND, Component
from loquet.core.parts import Part, choosing
from loquet.core.parts.terminal import ONE, OTHER


@dataclass(frozen=True)
class Near:
    """The terminal of another part beside which a part must sit."""

    role: str
    terminal: str


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
        nets: Mapping[str, str],
        near: Near | None = None,
    ) -> Component:
        """A component; `words` are its value and its purpose, nets are named by terminal."""
        return Component(
            role=role,
            part=part,
            block=self.block,
            value=words[0],
            purpose=words[1],
            pads=dict(nets),
            near_role=near.role if near else "",
            near_pad=near.terminal if near else "",
            board=self.board,
        )

    def named(
        self, role: str, part: str, words: tuple[str, str], nets: Mapping[str, str]
    ) -> Component:
        """A part with nets by the names of its terminals; a net whose name it has not is left
        out.
        """
        own = {name: nets[name] for name in self.parts[part].terminals if name in nets}
        return self.take(role, part, words, own)

    def quiet(self, role: str, part: str, net: str, value: str = "100 nF") -> Component:
        """The capacitor at a chip's supply pin."""
        near = Near(role, "supply")
        return self.capacitor(
            f"{role} decoupling", value, f"Decoupling of {role}", (net, GROUND), near
        )

    def capacitor(
        self, role: str, value: str, purpose: str, ends: tuple[str, str], near: Near | None = None
    ) -> Component:
        """A capacitor between two nets."""
        part = choosing.capacitor(self.parts, value)
        return self.take(role, part, (value, purpose), {ONE: ends[0], OTHER: ends[1]}, near)

    def resistor(
        self, role: str, value: str, purpose: str, ends: tuple[str, str], near: Near | None = None
    ) -> Component:
        """A resistor between two nets."""
        part = choosing.resistor(self.parts)
        return self.take(role, part, (value, purpose), {ONE: ends[0], OTHER: ends[1]}, near)
