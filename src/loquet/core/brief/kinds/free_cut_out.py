"""A cut-out of any shape."""

from typing import Literal

from loquet.core.brief.outline_shapes import PolygonOutline
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.thing import Body, Fault, NoPart, Opening

LEAST_MM, MOST_MM = 2.0, 200.0
A_D = PolygonOutline(points_mm=((0, 0), (6, 0), (6, 8), (0, 8)), bulges=(0, 1, 0, 0))


class FreeCutOut(NoPart):
    """A cut-out with sides that are straight or arcs, as a drawing of a shell has them; its line is
    given from its lower left corner and stands about its middle.
    """

    GROUP = "marks"
    TITLE = "Free cut-out"
    WORD = "free cut-out"
    MARK = "opening"
    DRAWN_BY_BOARD = True

    kind: Literal["free-cut-out"] = "free-cut-out"
    line: PolygonOutline = A_D

    @property
    def size_mm(self) -> tuple[float, float]:
        """How far its line reaches from its lower left corner."""
        _, _, right, top = outline_polygon_mm(self.line).bounds
        return right, top

    def bodies(self) -> tuple[Body, ...]:
        """The box about the opening."""
        return (Body(size_mm=self.size_mm),)

    def opening(self) -> Opening:
        """Its line."""
        w, h = self.size_mm
        return Opening(w, h, 0.0, self.line)

    def faults(self) -> tuple[Fault, ...]:
        """A line that encloses something of a size that is cut, and begins at its own corner."""
        area = outline_polygon_mm(self.line)
        if not area.is_valid or area.area <= 0:
            return (Fault("line", "crosses itself", "Draw it as one closed line."),)
        left, bottom, right, top = area.bounds
        if min(left, bottom) < -0.01 or max(left, bottom) > 0.01:
            problem = f"begins {left:.2f}, {bottom:.2f} mm from its own corner"
            return (Fault("line", problem, "Give it from its lower left corner."),)
        if not (min(right, top) >= LEAST_MM and max(right, top) <= MOST_MM):
            problem = f"is {right:.1f} x {top:.1f} mm"
            way = f"Draw it between {LEAST_MM:g} and {MOST_MM:g} mm."
            return (Fault("line", problem, way),)
        return ()
