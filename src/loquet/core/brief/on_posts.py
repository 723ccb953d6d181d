"""Things of one's own that stand on a row of posts, in a pin order that somebody has to give or to
confirm.
"""

from typing import Annotated

from pydantic import Field

from loquet.core.brief.places import Compared
from loquet.core.brief.thing import Body, Fault, Thing
from loquet.core.quantities.lengths import nm_from_mm

OPEN = "open"
SHARED = frozenset({"supply", "ground"})
PinOrder = Annotated[
    str,
    Field(
        max_length=400,
        description=(
            "names of its posts from pin 1 on, with commas between; empty takes supply, its lines,"
            " ground"
        ),
    ),
]


class OnPosts(Thing):
    """A thing on a row of posts at 2.54 mm along its lower side.

    `compared` names the drawing that its pin order was read from.
    """

    pin_order: PinOrder = ""
    compared: Compared = ""

    def compared_with(self) -> str:
        """The drawing named in the brief."""
        return self.compared.strip()

    def line_names(self) -> tuple[str, ...]:
        """What its posts carry beside supply and ground."""
        raise NotImplementedError

    def posts(self) -> tuple[str, ...]:
        """The names of its posts from pin 1 on."""
        given = tuple(name.strip() for name in self.pin_order.split(",") if name.strip())
        return given or ("supply", *self.line_names(), "ground")

    def faults(self) -> tuple[Fault, ...]:
        """Names that it does not have, lines that are missing or named twice."""
        posts, lines = self.posts(), self.line_names()
        known = ", ".join((*sorted(SHARED), *lines, OPEN))
        way = f"Use these names, each line once: {known}."
        for name in posts:
            if name not in (*SHARED, *lines, OPEN):
                return (Fault("pin_order", f"names '{name[:40]}', which it does not have", way),)
        for name in (*lines, "supply", "ground"):
            if name not in posts:
                return (Fault("pin_order", f"does not name {name}", way),)
            if posts.count(name) > 1 and name in lines:
                return (Fault("pin_order", f"names {name} twice", way),)
        if len(posts) > 40:
            return (Fault("pin_order", f"has {len(posts)} posts", "Take at most 40."),)
        return ()

    def on_board(self, width_mm: float, height_mm: float) -> tuple[Body, ...]:
        """Its posts along its lower side, and the room that it takes."""
        down = -nm_from_mm(max(height_mm / 2 - 1.27, 0.0))
        row = Body("posts", f"posts-{min(max(len(self.posts()), 2), 40)}", dy=down)
        return (row, Body(size_mm=(width_mm, height_mm)))
