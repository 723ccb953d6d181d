"""What stands in the way of an open link, and what would free it: ranked, each an edit."""

from dataclasses import dataclass

import shapely
from shapely.geometry import LineString

from loquet.core.board import BoardView
from loquet.core.board.linking import Link
from loquet.core.circuit.model import GROUND
from loquet.core.design import Choices
from loquet.core.geometry import Seat, core_of, middle_of, polygon_of, radius_of
from loquet.core.provenance import Repair

MOST_NAMED = 3
STEP_NM = 500_000
FARTHEST_NM = 5_000_000


@dataclass(frozen=True)
class Wall:
    """Copper of another net or a part in the straight way of a link: its words, how much of the way
    it takes in nm, and what would free it.
    """

    words: str
    takes_nm: float
    repair: Repair | None


def walls_of(view: BoardView, link: Link, choices: Choices) -> list[Wall]:
    """What stands in the straight way of a link, what takes most of it first."""
    ends = middle_of(link.start.shape), middle_of(link.end.shape)
    way = LineString(ends)
    reach = view.rules.track_nm / 2 + view.rules.gap_nm
    taken: dict[tuple[str, str], float] = {}
    for piece in (*view.pads, *view.wiring):
        if piece.net == link.net or (piece.net == GROUND and not piece.ref):
            continue
        part = shapely.buffer(core_of(piece.shape), radius_of(piece.shape) + reach)
        shared = float(shapely.length(shapely.intersection(way, part)))
        if shared:
            key = ("part", piece.ref) if piece.ref else ("net", piece.net)
            taken[key] = taken.get(key, 0.0) + shared
    drawn = hand_nets(view)
    own = {link.start.ref, link.end.ref}
    rows = sorted(taken.items(), key=lambda row: (-row[1], row[0]))
    return [
        wall_of(view, choices, kind, name, takes, drawn, way)
        for (kind, name), takes in rows
        if not (kind == "part" and name in own)
    ]


def hand_nets(view: BoardView) -> set[str]:
    """Nets of which something was drawn or kept by a person."""
    routing = view.routing
    if routing is None:
        return set()
    tracks = {track.net for track in routing.tracks if track.by_hand}
    return tracks | {via.net for via in routing.vias if via.by_hand}


def wall_of(
    view: BoardView,
    choices: Choices,
    kind: str,
    name: str,
    takes: float,
    drawn: set[str],
    way: LineString,
) -> Wall:
    """A part or a net in the way, with what would free it."""
    board = view.board.name
    if kind == "net":
        if name not in drawn:
            return Wall(f"tracks of {name}", takes, None)
        edit = {"kind": "release-nets", "board": board, "nets": [name]}
        given_back = Repair(label=f"Give {name} back to the router", edit=edit)
        return Wall(f"tracks of {name} that were drawn or kept by hand", takes, given_back)
    component = view.circuit.component(name)
    if component.role in choices.part_seats:
        release = {"kind": "release-part", "role": component.role}
        return Wall(
            f"{name}, put there by hand",
            takes,
            Repair(label=f"Let {name} be placed again", edit=release),
        )
    return Wall(name, takes, moved_aside(view, name, way))


def moved_aside(view: BoardView, ref: str, way: LineString) -> Repair | None:
    """The shortest move across the way that clears it, keeps the part on the board and off all
    others; None where there is none up to 5 mm, or the part is held by the brief.
    """
    placed = next(p for p in view.placement.parts if p.ref == ref)
    if placed.locked:
        return None
    (ax, ay), (bx, by) = way.coords[0], way.coords[-1]
    long = way.length or 1.0
    across = (-(by - ay) / long, (bx - ax) / long)
    pattern, room = view.patterns[ref], view.outline.buffer(-view.rules.edge_nm)
    others = [
        view.courtyard(r) for r, seat in view.seats.items() if r != ref and seat.far == placed.far
    ]
    tree = shapely.STRtree(others)
    clear = view.rules.track_nm / 2 + view.rules.gap_nm
    for step in range(STEP_NM, FARTHEST_NM + 1, STEP_NM):
        for side in (1, -1):
            x, y = (
                round(at + side * step * along)
                for at, along in zip((placed.x_nm, placed.y_nm), across, strict=True)
            )
            seat = Seat(x, y, placed.turn_deg, placed.far)
            yard = polygon_of(seat.shape(pattern.courtyard))
            pads = [polygon_of(seat.shape(p.shape)) for p in pattern.pads]
            if (
                room.contains(yard)
                and not len(tree.query(yard, "intersects"))
                and all(pad.distance(way) >= clear for pad in pads)
            ):
                edit = {
                    "kind": "seat-part",
                    "role": placed.role,
                    "x_mm": round(x / 1e6, 3),
                    "y_mm": round(y / 1e6, 3),
                    "turn_deg": placed.turn_deg,
                    "far": placed.far,
                }
                return Repair(label=f"Move {ref} {step / 1e6:.1f} mm aside", edit=edit)
    return None


def ways_to_free(walls: list[Wall], view: BoardView, link: Link) -> tuple[Repair, ...]:
    """At most three, what takes most of the way first; wires of the link's own net that a person
    drew come last.
    """
    found = [wall.repair for wall in walls if wall.repair]
    if link.net in hand_nets(view):
        edit = {"kind": "release-nets", "board": view.board.name, "nets": [link.net]}
        found.append(Repair(label=f"Give {link.net} back to the router", edit=edit))
    return tuple(found[:MOST_NAMED])
