"""In which order a board is built: what is soldered how, what before what, and what to watch at
each step.
"""

from collections.abc import Sequence

from loquet.core.board.copper import BoardView
from loquet.core.brief import Thing
from loquet.core.circuit import Component
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.plain.frozen import Frozen
from loquet.core.stack.model import Stack
from loquet.core.stack.wires import WireRun, wire_runs

FINE_MM = 0.65
"""Gull-wing leads this near or nearer are fine; IPC-7351B draws the line at 0.625 mm."""
HEAT = (
    "Iron and plate burn: keep hands and cables away, let the board cool. Solder fumes irritate:"
    " draw them off. Wash your hands after."
)
LITHIUM = (
    "A lithium cell can burn when it is shorted or heated: never solder near it, measure the"
    " polarity of its lead first. The maker's limits and local codes come first."
)
ONE_LEAD = (
    "Cut and strip the leads of a cell one at a time, the other one taped: a cutter across both"
    " shorts the cell, which then burns."
)
CUTTERS = "Cut leads fly: hold them, wear glasses."
TECHNIQUE = {
    "fine": (
        "Tin one corner pad, lay the part on, check that all leads lie on their pads, then the"
        " opposite corner; flux, and drag the rest."
    ),
    "small": (
        "Tin one pad only. Pads tinned on both ends lift the part: hold it down while the tinned"
        " end melts, then solder the other."
    ),
    "through": "Solder one lead, press the part flat while it melts again, then the others.",
    "plate": (
        "Paste through the stencil once, in one stroke. Put the parts down from the middle"
        " outwards; they pull themselves straight when the paste melts."
    ),
}


class Piece(Frozen):
    """A part in a step: where it lies, its value, and what shows which way round it goes."""

    ref: str
    value: str
    purpose: str
    turn: str


class Step(Frozen):
    """A step: what is done, on which side, with which parts lit, technique, cautions, what to test
    before going on.
    """

    title: str
    how: str
    far: bool
    parts: tuple[Piece, ...]
    technique: str = ""
    cautions: tuple[str, ...] = ()
    test: str = ""


def build_steps(
    view: BoardView, library: Library, stack: Stack, hand: bool = True
) -> tuple[Step, ...]:
    """The steps of a board: paste and plate for surface parts where there is a stencil (or fine and
    low parts first by hand), then what goes through the board from low to tall, modules after they
    were programmed, wires, the cell last.
    """
    parts = [c for c in view.circuit.components if not c.bare and view.heights_mm[c.ref] > 0]
    leads = led_through(view)
    modules = [c for c in parts if is_module(view, c)]
    surface = [c for c in parts if c.ref not in leads and c not in modules]
    through = [c for c in parts if c.ref in leads and c not in modules]
    steps = [bare_board(), *programmed_first(library, view)]
    if hand:
        steps += by_hand(view, library, surface)
    else:
        for number, far in enumerate(plate_sides(view, surface)):
            there = [c for c in surface if view.seats[c.ref].far is far]
            steps += on_plate(view, library, there, far, first=number == 0)
    for far, there in by_side(view, through):
        steps += from_low_to_tall(view, library, there, far)
    steps += [module_step(view, library, c) for c in modules]
    steps += [
        wash(),
        *wire_steps(library, view, stack),
        first_power_step(),
        *program_steps(library, view),
    ]
    steps += [*screen_steps(library, view), *source_steps(view, stack), closing(stack)]
    return tuple(steps)


def led_through(view: BoardView) -> set[str]:
    """Parts whose contacts go through the board; one with contacts on the surface is soldered as a
    surface part, whatever holds it down.
    """
    drilled = {pad.ref for pad in view.pads if pad.drill_nm}
    on_top = {pad.ref for pad in view.pads if pad.paste and not pad.drill_nm and not pad.covered}
    chips = {c.ref for c in view.circuit.components if c.is_chip}
    return drilled - (on_top | (chips & on_top))


def programmed_first(library: Library, view: BoardView) -> list[Step]:
    """Chips that were decided to be programmed before they are soldered."""
    return [
        Step(
            title=f"Program {c.ref}",
            how=(
                "In a socket, before it is soldered: nothing on this board reaches it afterwards."
                " Read it back."
            ),
            far=view.seats[c.ref].far,
            parts=pieces(library, view, [c]),
            test="It reads back as it was written.",
        )
        for c in view.circuit.components
        if c.is_chip
        and (thing := view.brief.find(c.thing)) is not None
        and not thing.READY_MADE
        and thing.programmed_apart()
    ]


def wash() -> Step:
    """After the last joint."""
    return Step(
        title="Wash and look",
        how=(
            "Wash the flux off with isopropanol and a brush, let it dry, and look at every joint"
            " with a glass."
        ),
        far=False,
        parts=(),
        cautions=(
            (
                "Isopropanol burns and its vapour makes one dizzy: no flame or hot iron near, open"
                " a window."
            ),
        ),
        test=(
            "Nothing is white, sticky or bridged; read supply against ground again, since residue"
            " conducts."
        ),
    )


def first_power_step() -> Step:
    """The first volts."""
    return Step(
        title="First power",
        how=(
            "From a bench supply with its current limited, by the First power page. Not from the"
            " cell."
        ),
        far=False,
        parts=(),
        test="All resistances before power and all volts after it are as expected.",
    )


def program_steps(library: Library, view: BoardView) -> list[Step]:
    """Each brain through its port."""
    found = []
    for c in view.circuit.components:
        thing = view.brief.find(c.thing)
        if thing is not None and thing.PROGRAMS and c.part.startswith(("header", "clip-pads")):
            found.append(
                Step(
                    title=f"Program over {c.ref}",
                    how=(
                        "Supply on from the bench, probe on with its pin 1 at pin 1; load the"
                        " program and read it back."
                    ),
                    far=view.seats[c.ref].far,
                    parts=pieces(library, view, [c]),
                    test="It reads back, and starts after the probe is off.",
                )
            )
    return found


def screen_steps(library: Library, view: BoardView) -> list[Step]:
    """Screens are put on once the board lives."""
    found = []
    for c in view.circuit.components:
        thing = view.brief.find(c.thing)
        if thing is not None and thing.display() is not None and c.role == thing.role():
            found.append(
                Step(
                    title="The screen" if thing.name == "screen" else f"The screen {thing.name}",
                    how=(
                        "Power off. Compare the pin order on its back with the words at the header,"
                        " then put it on and fix it; its film comes off last."
                    ),
                    far=view.seats[c.ref].far,
                    parts=pieces(library, view, [c]),
                    test="Power on: the first picture stands, nothing gets warm.",
                )
            )
    return found


def closing(stack: Stack) -> Step:
    """Last of all."""
    return Step(
        title="Try everything, then close",
        how=(
            "Press every key and move every stick with the shell still open; then put it together"
            " in the order of the Stack station. Screws by hand, until they hold."
        ),
        far=False,
        parts=(),
        test="Keys and sticks as on the Units page, after closing as before.",
    )


def bare_board() -> Step:
    """Before the first part."""
    return Step(
        title="Look at the bare board",
        how=(
            "Compare outline, holes and legend with the drawing; read supply against ground with a"
            " meter: open."
        ),
        far=False,
        parts=(),
        test=(
            "Supply to ground is open on the bare board; if not, the board is at fault and no part"
            " is wasted."
        ),
    )


def plate_sides(view: BoardView, parts: Sequence[Component]) -> list[bool]:
    """The sides with surface parts, the one with fewer first: what hangs below while the second
    side is heated must not fall off.
    """
    sides = {view.seats[c.ref].far for c in parts}
    return sorted(sides, key=lambda far: (sum(view.seats[c.ref].far is far for c in parts), far))


def by_hand(view: BoardView, library: Library, parts: Sequence[Component]) -> list[Step]:
    """Fine leads first, while nothing is in the way; then from flat to tall, both sides of each
    height: a tall part on one side keeps the board from lying flat for the other.
    """
    fine = [c for c in parts if is_fine(view, c)]
    steps = [
        Step(
            title=f"Fine leads, {SIDES[far]} side",
            how="Solder these with nothing else around them.",
            far=far,
            parts=pieces(library, view, there),
            technique=TECHNIQUE["fine"],
            cautions=(HEAT,),
            test="Look at every gap with a glass; read neighbouring pins against each other.",
        )
        for far, there in by_side(view, fine)
    ]
    low = sorted((c for c in parts if c not in fine), key=lambda c: (view.heights_mm[c.ref], c.ref))
    for title, chosen in layered(view, low):
        steps += [
            Step(
                title=f"{title}, {SIDES[far]} side",
                how="Solder these with the iron, the lowest first.",
                far=far,
                parts=pieces(library, view, there),
                technique=TECHNIQUE["small"],
                cautions=(HEAT,),
            )
            for far, there in by_side(view, chosen)
        ]
    return steps


SIDES = {False: "near", True: "far"}


def by_side(view: BoardView, parts: Sequence[Component]) -> list[tuple[bool, list[Component]]]:
    """Parts of the near side, then those of the far side, where there are any."""
    rows = [(far, [c for c in parts if view.seats[c.ref].far is far]) for far in (False, True)]
    return [row for row in rows if row[1]]


def on_plate(
    view: BoardView, library: Library, parts: Sequence[Component], far: bool, first: bool
) -> list[Step]:
    """Paste, parts, heat: all surface parts of a side at once; before anything is soldered by
    hand.
    """
    side = SIDES[far]
    paste = Step(
        title=f"Paste, {side} side",
        how=(
            "Lay the stencil on, spread paste once, lift it straight up. Before anything is"
            " soldered by hand: a stencil lies flat only on a bare board."
        ),
        far=far,
        parts=(),
        technique=TECHNIQUE["plate"],
    )
    ordered = sorted(parts, key=lambda c: (view.heights_mm[c.ref], c.ref))
    heat = (
        "Heat it on the plate by the curve of the Heating page."
        if first
        else "Heat from above with air: the parts of the other side hang below."
    )
    put = Step(
        title=f"Parts and heat, {side} side",
        how=f"Put all these down, small ones first. {heat}",
        far=far,
        parts=pieces(library, view, ordered),
        technique=TECHNIQUE["plate"],
        cautions=(HEAT,),
        test="Look for bridges and parts that stand up, with a glass, before going on.",
    )
    return [paste, put]


def layered(view: BoardView, parts: Sequence[Component]) -> list[tuple[str, list[Component]]]:
    """Low, middle and tall parts, those that are there."""
    bands = (("Flat parts", 0.0, 1.0), ("Low parts", 1.0, 3.0), ("Tall parts", 3.0, 100.0))
    found = []
    for title, least, most in bands:
        chosen = [c for c in parts if least < view.heights_mm[c.ref] <= most]
        if chosen:
            found.append((title, chosen))
    return found


def from_low_to_tall(
    view: BoardView, library: Library, parts: Sequence[Component], far: bool
) -> list[Step]:
    """What goes through the board, the lowest first: a tall part would hold the board up."""
    side = SIDES[far]
    ordered = sorted(parts, key=lambda c: (view.heights_mm[c.ref], c.ref))
    return [
        Step(
            title=f"{title} with leads, {side} side",
            how="Put them in from this side, solder them from the other, cut the leads at 1.5 mm.",
            far=far,
            parts=pieces(library, view, chosen),
            technique=TECHNIQUE["through"],
            cautions=(HEAT, CUTTERS),
        )
        for title, chosen in layered(view, ordered)
    ]


def is_fine(view: BoardView, component: Component) -> bool:
    """Whether pads of a part are so near that solder runs between them."""
    middles = sorted({middle_of(p.shape) for p in view.patterns[component.ref].pads})
    near = [abs(a[0] - b[0]) + abs(a[1] - b[1]) for a in middles for b in middles if a < b]
    return len(middles) > 4 and min(near, default=10**9) <= FINE_MM * 1e6


def is_module(view: BoardView, component: Component) -> bool:
    """Whether it is a ready module, which is programmed before it covers its own pads."""
    thing = view.brief.find(component.thing)
    return component.is_chip and thing is not None and thing.READY_MADE


def module_step(view: BoardView, library: Library, component: Component) -> Step:
    """A ready module."""
    return Step(
        title=f"Module {component.ref}",
        how=(
            "Program it first, on its own, and see that it answers: its pads are covered once it is"
            " soldered. Then solder two opposite corners, check that it lies flat, and the rest."
        ),
        far=view.seats[component.ref].far,
        parts=pieces(library, view, [component]),
        technique=TECHNIQUE["through"],
        cautions=(HEAT,),
        test="It still answers after soldering.",
    )


def wire_steps(library: Library, view: BoardView, stack: Stack) -> list[Step]:
    """Wires to what lies in the shell."""
    runs = wire_runs(view, library, stack)
    if not runs:
        return []
    how = "Twist them, and label both ends before they lie in the shell."
    plugs = [c for c in view.circuit.components if c.ref in {run.ref for run in runs}]
    live = any(is_cell(view.brief.find(run.thing)) for run in runs)
    return [
        Step(
            title="Wires",
            how=" ".join([*(wire_words(run) for run in runs), how]),
            far=view.seats[runs[0].ref].far,
            parts=pieces(library, view, plugs),
            cautions=(ONE_LEAD,) if live else (),
        )
    ]


def is_cell(thing: Thing | None) -> bool:
    """Whether it holds charge by itself."""
    supply = thing.source() if thing else None
    return supply is not None and not supply.stays


def source_steps(view: BoardView, stack: Stack) -> list[Step]:
    """What feeds the device, once the board has lived from the bench."""
    feeds = [t for t in view.brief.on(view.board.name) if t.source() is not None]
    cells = [t for t in feeds if is_cell(t)]
    if not feeds:
        return []
    lithium = any(s.chemistry == "lithium" for t in cells if (s := t.source()) is not None)
    soft = [p for p in stack.pieces if p.sort == "loose" and p.soft]
    if not cells:
        how = (
            "Read the polarity of the plug with a meter and compare it with plus and minus on the"
            " board. Then plug it in."
        )
        return [Step(title=f"Plug in {feeds[0].name}", how=how, far=False, parts=())]
    in_holder = not any(t.loose() is not None for t in cells)
    how = (
        "Compare plus and minus of each cell with those on the board, then put it in."
        if in_holder
        else (
            "Read the polarity at the lead with a meter and compare it with plus and minus on the"
            " board. Then plug it in."
        )
    )
    return [
        Step(
            title="The cell, last" if len(cells) == 1 else "The cells, last",
            how=how,
            far=bool(soft and soft[0].far),
            parts=(),
            cautions=(LITHIUM,) if lithium else (),
        )
    ]


def wire_words(run: WireRun) -> str:
    """How the wires of a loose thing are cut and labelled."""
    what = f"For {run.words}: {len(run.carries)} wires of {run.gauge} AWG"
    length = (
        f"cut to {run.cut_mm} mm"
        if not run.problem
        else "as long as their way, which is not found yet, and 30 mm"
    )
    return f"{what}, {length}, labelled {' and '.join(run.carries)}, to {run.ref}."


def pieces(library: Library, view: BoardView, parts: Sequence[Component]) -> tuple[Piece, ...]:
    """Parts with their values and what shows their way round."""
    return tuple(
        Piece(ref=c.ref, value=c.value, purpose=c.purpose, turn=turn_of(library, view, c))
        for c in parts
    )


def turn_of(library: Library, view: BoardView, component: Component) -> str:
    """What shows which way round a part goes; nothing for parts that go either way."""
    part = library.parts.get(component.part)
    names = set(part.pin_names.values()) if part else set()
    if "cathode" in names:
        return "the band or the mark to the double stroke: the cathode"
    if component.polar:
        return "plus to the plus on the board"
    if view.patterns[component.ref].first_pin is not None and len(component.pads) > 2:
        return "pin 1 to the double stroke"
    return ""
