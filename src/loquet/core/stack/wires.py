"""Wires from what lies loose in the shell to their plug on the board: the way they find between the
bodies, how long they are cut, how thick the bundle is, how wide its channel.
"""

from collections.abc import Iterator
from math import ceil

import shapely
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView
from loquet.core.library import Library
from loquet.core.lookup.powering import lead_ma, made_of
from loquet.core.parts.mating import ways_of
from loquet.core.parts.wire import USUAL_MM, Wire, wire, wire_for
from loquet.core.plain.frozen import Frozen
from loquet.core.plain.remembering import Remembered
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.lengths import fine_mm
from loquet.core.stack.model import Piece, Stack
from loquet.core.stack.wire_ways import Way, find_way

Spot = tuple[float, float]
PLUG_KIND = "wire plug"
SIGNAL_GAUGE = 28
"""Leads that carry no supply are of the gauge that plugs of 2.0 mm come with; common practice, no
source.
"""
JACKET_MM = 0.25
"""Insulation around the conductor of a thin lead; common practice, no source."""
SLACK_SHARE, SLACK_MM = 0.15, 30.0
"""So much longer than its way, and at least 30 mm, so that the shell opens with the wires on;
common practice, no source.
"""
PLAY_MM = 0.25
PACKED: dict[int, float] = {1: 1.0, 2: 2.0, 3: 2.155, 4: 2.414, 5: 2.701, 6: 3.0, 7: 3.0}
"""The circle around so many equal circles, in their diameters; from memory, the known densest
packings.
"""


class WireRun(Frozen):
    """Wires of one loose thing: its plug, what each carries, the gauge (AWG), the bundle's
    diameter, where it goes (corners in mm, leg by leg, `True` behind the board; none where there is
    no way), how long that is and how long each wire is cut, how wide the channel is, the workings,
    and where no way is found, why.
    """

    thing: str
    words: str
    ref: str
    carries: tuple[str, ...]
    gauge: int
    bundle_mm: float
    legs: tuple[tuple[bool, tuple[Spot, ...]], ...]
    long_mm: float
    cut_mm: int
    channel_mm: float
    workings: tuple[Working, ...]
    problem: str


RUNS: Remembered[tuple[WireRun, ...]] = Remembered(32)


def wire_runs(view: BoardView, library: Library, stack: Stack) -> tuple[WireRun, ...]:
    """The wires of every loose thing that has its plug on this board; kept as long as the stack
    is.
    """
    about = (stack, view.circuit, library)
    return RUNS.of(about, lambda: tuple(runs_of(view, library, stack)))


def runs_of(view: BoardView, library: Library, stack: Stack) -> Iterator[WireRun]:
    """The wires, worked out."""
    peaks = {
        m.feeder.name: lead_ma(m, view.brief, library)
        for m in made_of(view.brief, library)
        if m.feeder
    }
    for piece in stack.pieces:
        plug = plug_of(view, library, stack, piece) if piece.sort == "loose" else None
        if plug is None:
            continue
        body, carries = plug
        peak = peaks.get(piece.name)
        lead = wire(SIGNAL_GAUGE) if peak is None else wire_for(peak, USUAL_MM)
        run = run_of(stack, piece, body, carries, lead)
        if peak is not None and run.cut_mm > USUAL_MM:
            run = run_of(stack, piece, body, carries, wire_for(peak, run.cut_mm))
        yield run


def plug_of(
    view: BoardView, library: Library, stack: Stack, piece: Piece
) -> tuple[Piece, tuple[str, ...]] | None:
    """The plug of a loose thing on this board with the net of every way, or nothing."""
    bodies = {p.name: p for p in stack.pieces}
    for component in view.circuit.components:
        part = library.parts.get(component.part)
        if component.thing != piece.thing or part is None or part.kind != PLUG_KIND:
            continue
        if component.ref in bodies:
            ways = (str(number) for number in range(1, ways_of(part) + 1))
            nets = tuple(component.pads[way] for way in ways if way in component.pads)
            return bodies[component.ref], nets
    return None


def run_of(
    stack: Stack, piece: Piece, plug: Piece, carries: tuple[str, ...], lead: Wire
) -> WireRun:
    """The run of a bundle from the nearer short side of a loose thing to its plug."""
    bundle = bundle_mm(lead, len(carries))
    ways = [
        found for end in ends_of(piece.area) if (found := find_way(stack, piece, end, plug, bundle))
    ]
    way = min(ways, key=lambda w: w.long_mm, default=None)
    channel = fine_mm(bundle + 2 * PLAY_MM)
    problem = "" if way else blocked_words(stack, piece, plug, bundle)
    cut = cut_mm(way.long_mm) if way else 0
    return WireRun(
        thing=piece.name,
        words=piece.words,
        ref=plug.name,
        carries=carries,
        gauge=lead.gauge,
        bundle_mm=fine_mm(bundle),
        legs=drawn_legs(way) if way else (),
        long_mm=fine_mm(way.long_mm) if way else 0.0,
        cut_mm=cut,
        channel_mm=channel,
        workings=workings_of(piece, lead, carries, bundle, way, cut),
        problem=problem,
    )


def drawn_legs(way: Way) -> tuple[tuple[bool, tuple[Spot, ...]], ...]:
    """The legs of a way to the micrometre."""
    return tuple((far, tuple((fine_mm(x), fine_mm(y)) for x, y in leg)) for far, leg in way.legs)


def bundle_mm(lead: Wire, wires: int) -> float:
    """The diameter of so many insulated wires together."""
    one = lead.diameter_mm + 2 * JACKET_MM
    return one * packing(wires)


def packing(wires: int) -> float:
    """The circle around so many equal circles, in their diameters; about 1.15 x the root of their
    number for many.
    """
    return PACKED.get(wires) or float(1.15 * wires**0.5)


def cut_mm(long_mm: float) -> int:
    """A way with its slack, up to the next 5 mm."""
    return 5 * ceil((long_mm + max(SLACK_MM, SLACK_SHARE * long_mm)) / 5 - 1e-9)


def ends_of(area: BaseGeometry) -> tuple[Spot, Spot]:
    """The middles of the two short sides of a rectangle, where leads come out."""
    corners = shapely.get_coordinates(shapely.minimum_rotated_rectangle(area))[:4]
    sides = [LineString([corners[i], corners[(i + 1) % 4]]) for i in range(4)]
    first = min((0, 1), key=lambda i: sides[i].length)
    one, other = (sides[i].interpolate(0.5, normalized=True) for i in (first, first + 2))
    return (one.x, one.y), (other.x, other.y)


def blocked_words(stack: Stack, piece: Piece, plug: Piece, bundle: float) -> str:
    """Why no way is found."""
    if piece.far != plug.far:
        return (
            f"The wires of {piece.words} are {bundle:.1f} mm thick together and have to pass from"
            " one side of the board to the other: the gap about it is"
            f" {stack.walls.side_gap_mm:.1f} mm, and no opening in it is wide enough."
        )
    return (
        f"The wires of {piece.words} are {bundle:.1f} mm thick together and find no way to"
        f" {plug.words} between what stands there and the wall."
    )


def workings_of(
    piece: Piece,
    lead: Wire,
    carries: tuple[str, ...],
    bundle: float,
    way: Way | None,
    cut: int,
) -> tuple[Working, ...]:
    """The thickness of a bundle, and the length that is cut."""
    practice = Source(kind="common practice", text="jacket and slack: no source")
    found = [
        Working(
            id=f"stack.bundle.{piece.name}",
            title=f"Wires of {piece.name} together",
            value=bundle,
            unit="mm",
            shown=f"{bundle:.2f} mm",
            formula="(conductor + 2 x jacket) x packing",
            inputs=(
                given(
                    "conductor", round(lead.diameter_mm, 3), "mm", f"{lead.gauge} AWG, ASTM B258"
                ),
                given("jacket", JACKET_MM, "mm", "thin lead; common practice, no source"),
                given(
                    "packing",
                    packing(len(carries)),
                    "",
                    f"circle around {len(carries)} equal circles",
                ),
            ),
            source=practice,
        )
    ]
    if way is not None:
        found.append(
            Working(
                id=f"stack.cut.{piece.name}",
                title=f"Cut each wire of {piece.name} to",
                value=cut,
                unit="mm",
                shown=f"{cut} mm",
                formula="5 x ceil((way + max(least, share x way)) / 5)",
                inputs=(
                    given(
                        "way",
                        fine_mm(way.long_mm),
                        "mm",
                        "between the bodies, with the thickness of the board where it is passed",
                    ),
                    given(
                        "least",
                        SLACK_MM,
                        "mm",
                        "so that the shell opens; common practice, no source",
                    ),
                    given("share", SLACK_SHARE, "", "slack; common practice, no source"),
                ),
                source=practice,
            )
        )
    return tuple(found)
