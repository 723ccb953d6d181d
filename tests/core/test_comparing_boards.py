"""Two versions of a board compared: what came, went, moved and changed, against changes made by
hand.
"""

from loquet.core.board.model import PlacedPart, Placement, Routing, Track, Via
from loquet.core.circuit import Circuit, Component
from loquet.core.comparing.boards import (
    NetDifference,
    PartDifference,
    TrackDifference,
    compare_boards,
)
from loquet.core.design import DEVICE, Design
from loquet.demo.scenario import demo_brief

MM = 1_000_000


def version(
    parts: dict[str, tuple[str, int, int, int, bool]],
    tracks: tuple[Track, ...],
    vias: tuple[Via, ...],
) -> Design:
    """A design of a board with these parts (reference and part, place in mm, turn, side) and this
    wiring.
    """
    components = tuple(
        Component(
            role=role,
            ref=role.upper(),
            part=part,
            block="b",
            board="main",
            purpose="p",
            pads={"1": "A"},
        )
        for role, (part, *_) in parts.items()
    )
    placed = tuple(
        PlacedPart(role=role, ref=role.upper(), x_nm=x * MM, y_nm=y * MM, turn_deg=turn, far=far)
        for role, (_, x, y, turn, far) in parts.items()
    )
    empty = Design(brief=demo_brief("dusk-remote"))
    made = {
        "circuit": (DEVICE, Circuit(components=components, nets=(), workings=())),
        "placement": ("main", Placement(parts=placed)),
        "routing": ("main", Routing(tracks=tracks, vias=vias, open_links=())),
    }
    return empty.model_copy(
        update={name: {key: Kept(value)} for name, (key, value) in made.items()}
    )


class Kept:
    """What a slice is to whoever only reads its value."""

    def __init__(self, value: object) -> None:
        self.value = value


def track(net: str, *ends: int, far: bool = False) -> Track:
    """A track in mm."""
    x1, y1, x2, y2 = (v * MM for v in ends)
    return Track(net=net, far=far, x1_nm=x1, y1_nm=y1, x2_nm=x2, y2_nm=y2, width_nm=200_000)


def test_everything_that_differs_and_nothing_else() -> None:
    """One part each came, went, moved, turned over and became another; one that stays is not named;
    a track drawn the other way round is the same.
    """
    before = version(
        {
            "r1": ("R10k", 10, 10, 0, False),
            "r2": ("R10k", 20, 10, 0, False),
            "r3": ("R10k", 30, 10, 0, False),
            "r4": ("R10k", 40, 10, 90, False),
            "r5": ("R10k", 50, 10, 0, False),
        },
        (track("A", 0, 0, 3, 4), track("B", 0, 0, 5, 0), track("C", 7, 7, 8, 7)),
        (Via(net="B", x_nm=0, y_nm=0),),
    )
    after = version(
        {
            "r1": ("R10k", 10, 10, 0, False),
            "r2": ("R10k", 23, 14, 0, False),
            "r3": ("R22k", 30, 10, 0, False),
            "r4": ("R10k", 40, 10, 180, True),
            "r6": ("C1u", 60, 10, 0, False),
        },
        (track("A", 3, 4, 0, 0), track("B", 0, 0, 5, 0, far=True), track("C", 7, 7, 8, 7)),
        (Via(net="B", x_nm=0, y_nm=0), Via(net="C", x_nm=MM, y_nm=0)),
    )
    found = compare_boards(before, after, "main")
    assert found.parts == (
        PartDifference(
            what="moved", ref="R2", role="r2", how="by 5.00 mm", was=(20, 10), now=(23, 14)
        ),
        PartDifference(
            what="changed", ref="R3", role="r3", how="from R10k to R22k", was=(30, 10), now=(30, 10)
        ),
        PartDifference(
            what="moved",
            ref="R4",
            role="r4",
            how="turned from 90° to 180°, to the far side",
            was=(40, 10),
            now=(40, 10),
        ),
        PartDifference(what="came", ref="R6", role="r6", how="C1u", now=(60, 10)),
        PartDifference(what="went", ref="R5", role="r5", how="R10k", was=(50, 10)),
    )
    assert found.tracks == (
        TrackDifference(what="went", net="B", far=False, x1=0, y1=0, x2=5, y2=0),
        TrackDifference(what="came", net="B", far=True, x1=0, y1=0, x2=5, y2=0),
    )
    assert found.nets == (
        NetDifference(net="B", track_was=5, track_now=5, vias_was=1, vias_now=1),
        NetDifference(net="C", track_was=1, track_now=1, vias_was=0, vias_now=1),
    )


def test_a_version_that_was_not_placed_has_parts_but_no_places() -> None:
    """And a board that nobody made differs in nothing."""
    made = version({"r1": ("R10k", 10, 10, 0, False)}, (track("A", 0, 0, 3, 4),), ())
    bare = made.model_copy(update={"placement": {}, "routing": {}})
    found = compare_boards(bare, made, "main")
    assert found.parts == ()
    assert [(n.net, n.track_was, n.track_now) for n in found.nets] == [("A", 0, 5)]
    nothing = Design(brief=demo_brief("dusk-remote"))
    assert compare_boards(nothing, nothing, "main").parts == ()
