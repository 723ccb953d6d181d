"""What differs between two versions of a board: parts, tracks, vias, nets and rules, for a picture
and a table.
"""

from collections import Counter
from math import hypot
from typing import Literal

from loquet.core.board.model import GROUND_ALONE, Placement, PourChoice, Routing
from loquet.core.circuit import Circuit
from loquet.core.design import DEVICE, Design
from loquet.core.plain.frozen import Frozen

PartChange = Literal["came", "went", "moved", "changed"]
LEAST_NM = 1_000


class PartDifference(Frozen):
    """A part by its role: what became of it, how, and where it was and is (mm; None where it was
    not or is not).
    """

    what: PartChange
    ref: str
    role: str
    how: str
    was: tuple[float, float] | None = None
    now: tuple[float, float] | None = None


class TrackDifference(Frozen):
    """A piece of track that only one version has, in mm."""

    what: Literal["came", "went"]
    net: str
    far: bool
    x1: float
    y1: float
    x2: float
    y2: float


class NetDifference(Frozen):
    """A net whose wiring differs: track in mm and vias before and after."""

    net: str
    track_was: float
    track_now: float
    vias_was: int
    vias_now: int


class AreaDifference(Frozen):
    """An area to be poured with a net other than ground that only one version has, its corners in
    mm.
    """

    what: Literal["came", "went"]
    net: str
    far: bool
    ring: tuple[tuple[float, float], ...]


class BoardDifferences(Frozen):
    """Everything that differs on a board; tear-drops are said where they came or went."""

    parts: tuple[PartDifference, ...] = ()
    tracks: tuple[TrackDifference, ...] = ()
    nets: tuple[NetDifference, ...] = ()
    areas: tuple[AreaDifference, ...] = ()
    tear_drops: Literal["came", "went"] | None = None


def compare_boards(before: Design, after: Design, board: str) -> BoardDifferences:
    """From one version of a board to another, as far as each is made."""
    tracks, nets = wiring_differences(routing_of(before, board), routing_of(after, board))
    old, new = (d.choices.pours.get(board, GROUND_ALONE) for d in (before, after))
    drops: Literal["came", "went"] | None = None
    if old.tear_drops != new.tear_drops:
        drops = "came" if new.tear_drops else "went"
    return BoardDifferences(
        parts=part_differences(before, after, board),
        tracks=tracks,
        nets=nets,
        areas=(*areas_only_in(old, new, "went"), *areas_only_in(new, old, "came")),
        tear_drops=drops,
    )


def areas_only_in(
    one: PourChoice, other: PourChoice, what: Literal["came", "went"]
) -> tuple[AreaDifference, ...]:
    """Areas that one choice has and the other has not."""
    return tuple(
        AreaDifference(
            what=what,
            net=area.net,
            far=area.far,
            ring=tuple((x / 1e6, y / 1e6) for x, y in area.ring),
        )
        for area in one.areas
        if area not in other.areas
    )


def routing_of(design: Design, board: str) -> Routing | None:
    """The routing of a board, where there is one."""
    made = design.routing.get(board)
    return made.value if made else None


Spot = tuple[int, int, int, bool]


def part_differences(before: Design, after: Design, board: str) -> tuple[PartDifference, ...]:
    """Parts by role, in the order of the later version, those that went at the end."""
    (old, old_spots), (new, new_spots) = parts_of(before, board), parts_of(after, board)
    found: list[PartDifference] = []
    for role, (ref, part) in new.items():
        was, now = old_spots.get(role), new_spots.get(role)
        here = spot_mm(now)
        if role not in old:
            found.append(PartDifference(what="came", ref=ref, role=role, how=part, now=here))
            continue
        if old[role][1] != part:
            how = f"from {old[role][1]} to {part}"
            found.append(
                PartDifference(
                    what="changed", ref=ref, role=role, how=how, was=spot_mm(was), now=here
                )
            )
        if was and now and was != now:
            how = moved_words(was, now)
            found.append(
                PartDifference(
                    what="moved", ref=ref, role=role, how=how, was=spot_mm(was), now=here
                )
            )
    found += [
        PartDifference(what="went", ref=ref, role=role, how=part, was=spot_mm(old_spots.get(role)))
        for role, (ref, part) in old.items()
        if role not in new
    ]
    return tuple(found)


def parts_of(design: Design, board: str) -> tuple[dict[str, tuple[str, str]], dict[str, Spot]]:
    """Reference and part by role, and where each lies."""
    circuit: Circuit | None = design.circuit[DEVICE].value if DEVICE in design.circuit else None
    made = design.placement.get(board)
    placement: Placement | None = made.value if made else None
    on_board = circuit.on(board).components if circuit else ()
    parts = {c.role: (c.ref, f"{c.part} {c.value}".strip()) for c in on_board}
    placed = placement.parts if placement else ()
    return parts, {p.role: (p.x_nm, p.y_nm, p.turn_deg, p.far) for p in placed}


def spot_mm(spot: Spot | None) -> tuple[float, float] | None:
    """A place in mm."""
    return (spot[0] / 1e6, spot[1] / 1e6) if spot else None


def moved_words(was: Spot, now: Spot) -> str:
    """How a part moved."""
    way = hypot(now[0] - was[0], now[1] - was[1])
    said = [f"by {way / 1e6:.2f} mm"] if way >= LEAST_NM else []
    if was[2] != now[2]:
        said.append(f"turned from {was[2]}° to {now[2]}°")
    if was[3] != now[3]:
        said.append(f"to the {'far' if now[3] else 'near'} side")
    return ", ".join(said) or "by less than a micrometre"


Way = tuple[str, bool, tuple[int, int], tuple[int, int], int]


def wiring_differences(
    before: Routing | None, after: Routing | None
) -> tuple[tuple[TrackDifference, ...], tuple[NetDifference, ...]]:
    """Pieces of track that only one has, whichever way round they are drawn; and nets by length and
    vias.
    """
    old, new = ways_of(before), ways_of(after)
    tracks = []
    words: tuple[tuple[Literal["came", "went"], Counter[Way]], ...] = (
        ("went", old - new),
        ("came", new - old),
    )
    for what, ways in words:
        for net, far, (x1, y1), (x2, y2), _ in sorted(ways.elements()):
            tracks.append(
                TrackDifference(
                    what=what, net=net, far=far, x1=x1 / 1e6, y1=y1 / 1e6, x2=x2 / 1e6, y2=y2 / 1e6
                )
            )
    touched = {way[0] for way in (old - new) + (new - old)} | vias_differing(before, after)
    nets = tuple(
        NetDifference(
            net=net,
            track_was=length_of(old, net),
            track_now=length_of(new, net),
            vias_was=vias_of(before, net),
            vias_now=vias_of(after, net),
        )
        for net in sorted(touched)
    )
    return tuple(tracks), nets


def ways_of(routing: Routing | None) -> Counter[Way]:
    """Every piece of track, its ends in order."""
    found: Counter[Way] = Counter()
    for t in routing.tracks if routing else ():
        first, last = sorted(((t.x1_nm, t.y1_nm), (t.x2_nm, t.y2_nm)))
        found[t.net, t.far, first, last, t.width_nm] += 1
    return found


def length_of(ways: Counter[Way], net: str) -> float:
    """Track of a net in mm."""
    total = sum(
        hypot(last[0] - first[0], last[1] - first[1]) * count
        for (name, _, first, last, _), count in ways.items()
        if name == net
    )
    return round(total / 1e6, 3)


def vias_of(routing: Routing | None, net: str) -> int:
    """Vias of a net."""
    return sum(v.net == net for v in (routing.vias if routing else ()))


def vias_differing(before: Routing | None, after: Routing | None) -> set[str]:
    """Nets whose vias lie elsewhere."""
    old, new = (
        {(v.net, v.x_nm, v.y_nm) for v in (routing.vias if routing else ())}
        for routing in (before, after)
    )
    return {net for net, _, _ in old ^ new}
