"""Shapes of a board as the front end draws it: parts, pads, tracks, vias, poured pieces, holes,
areas; all in mm.
"""

from typing import Literal

from pydantic import BaseModel

from loquet.core.provenance import Working

StationState = Literal["empty", "working", "stale", "stop", "look", "clear"]


class NetView(BaseModel):
    """A net."""

    name: str
    kind: str
    pads: list[tuple[str, str]]


class PadView(BaseModel):
    """A pad: shape `box` (x, y, w, h) or `round` (x, y, d, d), in mm."""

    ref: str
    pad: str
    net: str
    sides: list[str]
    shape: str
    x: float
    y: float
    w: float
    h: float
    turn: float
    drill: float


class PartView(BaseModel):
    """A placed part with its courtyard about its middle, in mm."""

    ref: str
    role: str
    purpose: str
    x: float
    y: float
    turn: int
    far: bool
    locked: bool
    by_hand: bool
    yard: tuple[float, float, float, float]
    body: tuple[float, float, float, float]
    height: float


class LinkView(BaseModel):
    """A connection that is still open, between two pads, in mm."""

    net: str
    x1: float
    y1: float
    x2: float
    y2: float


class TrackView(LinkView):
    """A connection that a track makes, in mm."""

    far: bool
    w: float
    by_hand: bool


class ViaView(BaseModel):
    """A via in mm; a `stitch` belongs to the pour and not to the wiring of its net."""

    net: str
    x: float
    y: float
    stitch: bool
    by_hand: bool


class PieceView(BaseModel):
    """A poured piece: its net, and rings of points in mm, the first the outer one."""

    net: str
    far: bool
    rings: list[list[tuple[float, float]]]


class AreaView(BaseModel):
    """An area that a person wants poured with a net other than ground, its corners in mm."""

    net: str
    far: bool
    ring: list[tuple[float, float]]


class HoleView(BaseModel):
    """An unplated hole."""

    x: float
    y: float
    d: float


class KeptView(BaseModel):
    """An area that is kept free of parts on its side, or of copper on both, and what it is kept
    free of in words.
    """

    thing: str
    ring: list[tuple[float, float]]
    far: bool
    parts: bool
    copper: bool
    words: str


class CoverView(BaseModel):
    """A module that hangs over the near side: left, bottom, right, top, and how far above the board
    it lies, in mm.
    """

    thing: str
    rect: tuple[float, float, float, float]
    above: float


class PlaneView(BaseModel):
    """An inner plane: its net, whether it is the one next to the far side, and its pieces as rings
    in mm.
    """

    net: str
    far: bool
    pieces: list[PieceView]


class BoardDrawing(BaseModel):
    """The Board station."""

    board: str
    boards: list[str]
    outline: list[tuple[float, float]]
    openings: list[list[tuple[float, float]]]
    kept: list[KeptView]
    parts: list[PartView]
    pads: list[PadView]
    tracks: list[TrackView]
    links: list[LinkView]
    vias: list[ViaView]
    pieces: list[PieceView]
    areas: list[AreaView]
    tear_drops: bool
    planes: list[PlaneView]
    holes: list[HoleView]
    covers: list[CoverView]
    thickness_mm: float
    via_mm: float
    via_hole_mm: float
    gap_mm: float
    routed: bool
    poured: bool
    stale: list[str]
    workings: list[Working]
