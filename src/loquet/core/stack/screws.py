"""How long the screws must be, and how high the posts."""

from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.lengths import caliper_mm, fine_mm
from loquet.core.stack.model import Walls
from loquet.core.stack.screw_sizes import ENGAGED, LENGTHS_MM, SKIN_MM, Screw, screw_of

ISO = Source(
    kind="standard",
    text=(
        "lengths and heads of ISO 7045 and ISO 7046, from memory; two diameters in plastic are"
        " common practice"
    ),
)


@dataclass(frozen=True)
class ScrewFit:
    """A screw at a hole: its thread, its length (None where no length fits), how long it must and
    may be, the height of its post and of its countersunk head, and the working of its length.
    """

    thing: str
    thread: str
    head: str
    length_mm: int | None
    least_mm: float
    most_mm: float
    post_mm: float
    sunk_mm: float
    working: Working


def screw_fits(view: BoardView, walls: Walls, choices: StackChoices) -> Iterator[ScrewFit]:
    """The screw of every fixing hole."""
    for thing in view.brief.on(view.board.name):
        found = screw_of(thing, choices)
        if found is not None:
            yield screw_fit(thing.name, *found, walls, choices)


def screw_fit(
    name: str, thread: str, screw: Screw, walls: Walls, choices: StackChoices
) -> ScrewFit:
    """The shortest preferred length that holds, and whether it stays inside.

    Between posts the screw goes through the board into a post of the back; through the device it
    goes through the back wall and its post, then the board, into a boss of the front. The length of
    a countersunk screw is that of the whole screw, that of others is without the head (ISO 7045,
    ISO 7046).
    """
    through = choices.fixing == "through"
    passed = walls.board_mm + (walls.wall_mm + walls.far_room_mm if through else 0.0)
    room = walls.near_room_mm if through else walls.far_room_mm
    least = passed + ENGAGED * screw.d_mm
    most = passed + room + walls.wall_mm - SKIN_MM
    length = next((n for n in LENGTHS_MM if n >= least - 1e-9), None)
    if length is not None and length > most + 1e-9:
        length = None
    inputs = [given("board", walls.board_mm, "mm", "thickness at Release")]
    formula = "board + engaged x thread"
    if through:
        inputs += [
            given("wall", walls.wall_mm, "mm", "this station"),
            given("post", walls.far_room_mm, "mm", "room behind the board"),
        ]
        formula = "wall + post + board + engaged x thread"
    inputs += [
        given("engaged", ENGAGED, "diameters", "common practice, no source"),
        given("thread", screw.d_mm, "mm", thread),
    ]
    working = Working(
        id=f"stack.screw.{name}",
        title=f"Screw at {name} is at least",
        value=least,
        unit="mm",
        shown=f"{least:.1f} mm",
        formula=formula,
        inputs=tuple(inputs),
        source=ISO,
    )
    post = caliper_mm(walls.far_room_mm)
    return ScrewFit(
        thing=name,
        thread=thread,
        head=choices.head_words,
        length_mm=length,
        least_mm=fine_mm(least),
        most_mm=fine_mm(most),
        post_mm=post,
        sunk_mm=screw.sunk_mm[1],
        working=working,
    )
