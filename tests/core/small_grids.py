"""Boards of 12 x 9 mm for the router, with nothing on them but the pads that a test lays there."""

from shapely.geometry import box

from loquet.core.board import Wires
from loquet.core.board.copper import NEAR, Copper, Hole
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import Net
from loquet.core.geometry import Bar, Box, Round
from loquet.core.library import Library
from loquet.core.routing import RouteInput

MM = 1_000_000
WIDE, HIGH = 12, 9


def given(
    library: Library, *pads: Copper, holes: tuple[Hole, ...] = (), wires: Wires | None = None
) -> RouteInput:
    names = sorted({p.net for p in pads if p.net})
    nets = tuple(Net(name=name, kind="signal", pads=()) for name in names)
    area = box(0, 0, WIDE * MM, HIGH * MM)
    circuit = Circuit(components=(), nets=nets, workings=())
    return RouteInput(
        area, area, circuit, pads, holes, library.house("millrace").rules(), wires or Wires()
    )


def pad(
    net: str, shape: Round | Bar | Box, sides: tuple[str, ...] = (NEAR,), **more: int
) -> Copper:
    return Copper(net, sides, shape, "pad", f"{net or 'X'}{id(shape)}", "1", **more)


def nm(*values: float) -> tuple[int, ...]:
    return tuple(round(v * MM) for v in values)
