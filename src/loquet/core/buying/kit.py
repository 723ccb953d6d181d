"""The kit: everything that the devices need and that is not on their boards, and where each of it
stands.
"""

from collections.abc import Iterator
from typing import Literal

from loquet.core.board.copper import BoardView
from loquet.core.brief import Brief, Thing
from loquet.core.brief.thing import KitItem
from loquet.core.design import Bought, Design
from loquet.core.library import Library
from loquet.core.lookup.powering import lead_ma, made_of
from loquet.core.parts.wire import USUAL_MM, wire_working
from loquet.core.pipeline import board_view
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Working
from loquet.core.stack.model import Stack
from loquet.core.stack.report import cap_workings
from loquet.core.stack.screw_sizes import screw_of
from loquet.core.stack.screws import screw_fits
from loquet.core.stack.stacking import stack_of

KitState = Literal["missing", "bought", "in the drawer"]
MAKING = (
    KitItem(
        "making", "solder wire, lead-free, 0.5 mm, with flux inside", 1, "parts fitted by hand"
    ),
    KitItem("making", "isopropanol and a brush", 1, "takes the flux off"),
)
PASTE = KitItem("making", "solder paste, lead-free, and a stencil", 1, "surface parts on a plate")


class KitLine(Frozen):
    """A line of the kit: what to buy, how many for all devices, what for, where it stands, and what
    was really bought.
    """

    group: str
    what: str
    count: int
    why: str
    state: KitState = "missing"
    bought: Bought | None = None


class Kit(Frozen):
    """All lines by group, and the workings of the wires."""

    lines: tuple[KitLine, ...]
    workings: tuple[Working, ...]


def kit_of(design: Design, library: Library) -> Kit:
    """The kit for so many devices as the brief wants; equal things become one line, tools and stuff
    for making count once.
    """
    brief = design.brief
    counts: dict[tuple[str, str], int] = {}
    whys: dict[tuple[str, str], dict[str, None]] = {}
    for item, times in items_of(design, library):
        key = (item.group, item.what)
        counts[key] = counts.get(key, 0) + item.count * times
        whys.setdefault(key, {})[item.why] = None
    lines = tuple(
        KitLine(
            group=group,
            what=what,
            count=count,
            why=", ".join(whys[group, what]),
            state=design.choices.kit.get(what, "missing"),
            bought=design.choices.bought.get(what),
        )
        for (group, what), count in counts.items()
    )
    return Kit(lines=lines, workings=wires_of(brief, library))


BY_KIT = "kit:"
"""How a line of a price list names what it is in a kit, in place of a part of the shelf."""


def kit_key(what: str) -> str:
    """Under which a line of a kit is found in price lists."""
    return f"{BY_KIT}{what}"


def kit_to_buy(design: Design, library: Library, number: int) -> tuple[KitLine, ...]:
    """What of the kit for so many devices is neither bought nor in the drawer."""
    brief = design.brief.model_copy(update={"quantity": number})
    lines = kit_of(design.model_copy(update={"brief": brief}), library).lines
    return tuple(line for line in lines if line.state == "missing")


def items_of(design: Design, library: Library) -> Iterator[tuple[KitItem, int]]:
    """Every item with how many times it is needed."""
    brief = design.brief
    for thing in brief.things:
        for item in thing.kit():
            yield item, 1 if "one for all" in item.why else brief.quantity
        for item in bought_with(thing, library):
            yield item, brief.quantity
    for item in (*cables_of(brief, library), *mechanics_of(design, library)):
        yield item, brief.quantity
    yield from ((item, 1) for item in (*MAKING, PASTE))


def bought_with(thing: Thing, library: Library) -> Iterator[KitItem]:
    """What goes with the parts of a thing: caps, pills, nuts."""
    for body in thing.bodies():
        part = library.parts.get(body.part)
        for what in library.roles.with_it(part) if part else ():
            yield KitItem("mechanics", what, 1, f"goes with {thing.name}")


def mechanics_of(design: Design, library: Library) -> Iterator[KitItem]:
    """Screws as long as the stack asks, and caps as high; of a board that is not placed yet without
    their lengths.
    """
    choices = design.choices.stack
    for board in design.brief.boards:
        if board.name in design.placement and design.circuit:
            view = board_view(design, library, board.name)
            stack = stack_of(view, library, choices, design.brief.making.thickness_mm)
            for fit in screw_fits(view, stack.walls, choices):
                long = f"{fit.length_mm} mm" if fit.length_mm else "no length fits, see the Stack"
                yield KitItem(
                    "mechanics",
                    f"screw {fit.thread} x {long}, {fit.head}",
                    1,
                    "fixes the board",
                )
            yield from caps_of(view, library, stack)
            continue
        for thing in design.brief.on(board.name):
            found = screw_of(thing, choices)
            if found is not None:
                what = (
                    f"screw {found[0]}, {choices.head_words}, as long as the Stack says once the"
                    " board is placed"
                )
                yield KitItem("mechanics", what, 1, "fixes the board")


def caps_of(view: BoardView, library: Library, stack: Stack) -> Iterator[KitItem]:
    """A cap for every control that a finger works through the wall, unless its part says
    what goes with it.
    """
    highs = {w.id: w.shown for w in cap_workings(view, library, stack)}
    for component in view.circuit.components:
        part = library.parts.get(component.part)
        if part is None or not library.roles.in_use(part).capped or library.roles.with_it(part):
            continue
        far = view.seats[component.ref].far
        high = highs[f"stack.cap.{part.id}.{'far' if far else 'near'}"]
        yield KitItem(
            "mechanics", f"cap of {high} for: {part.short}", 1, "controls, printed or bought"
        )


def cables_of(brief: Brief, library: Library) -> list[KitItem]:
    """For every link between boards a cable, or, where its ends are plugged together, sockets in
    place of the posts at one of them.
    """
    ends: dict[str, list[Thing]] = {}
    for thing in brief.things:
        joint = thing.joint()
        if joint is not None and thing.part in library.parts:
            ends.setdefault(joint.word, []).append(thing)
    return [link_item(word, pair, library) for word, pair in ends.items() if len(pair) == 2]


def link_item(word: str, pair: list[Thing], library: Library) -> KitItem:
    """What joins the two ends of a link; two rows of posts do not mate."""
    joint, posts = pair[1].joint(), library.parts[pair[1].part].short
    if joint is not None and joint.plugged:
        what = f"row of sockets in place of the posts at {pair[1].name}: {posts}, sockets"
        return KitItem("leads and cables", what, 1, f"link {word}; posts and posts do not mate")
    what = f"cable with sockets at both ends for: {posts}"
    return KitItem("leads and cables", what, 1, f"link {word}; pin n on pin n")


def wires_of(brief: Brief, library: Library) -> tuple[Working, ...]:
    """The wires from each source to its board."""
    return tuple(
        wire_working(made.feeder.name, lead_ma(made, brief, library), USUAL_MM)
        for made in made_of(brief, library)
        if made.feeder and made.supply and made.feeder.kit()
    )
