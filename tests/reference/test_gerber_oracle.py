"""Finished files read by an independent general Gerber library (gerbonara), against the design and
our own reader.
"""

import math
import warnings
from pathlib import Path

import pytest
import shapely
from gerbonara import ExcellonFile
from gerbonara.graphic_objects import Flash, Line
from gerbonara.ipc356 import Netlist
from gerbonara.utils import MM
from shapely.geometry import LineString, Point, Polygon, box

from loquet.core.board.copper import FAR, NEAR
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.proof.gerber_reader import read_gerber
from loquet.core.release import Release
from tests.foreign_reader import as_shapely, opened


@pytest.fixture(scope="module")
def folder(released: Release, tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("package")
    for name, data in released.files.items():
        (path / name).parent.mkdir(exist_ok=True)
        (path / name).write_bytes(data)
    return path / "fabrication"


def ours_as_shapely(data: bytes, name: str) -> shapely.Geometry:
    """The same from our own reader, built apart."""
    layer = read_gerber(data, name)
    events: list[tuple[int, bool, shapely.Geometry]] = []
    for item in layer.objects:
        match item.shape:
            case Round() as disc:
                shape: shapely.Geometry = Point(disc.x / 1e6, disc.y / 1e6).buffer(
                    disc.d / 2e6, quad_segs=64
                )
            case Box() as b:
                shape = box(
                    (b.x - b.w / 2) / 1e6,
                    (b.y - b.h / 2) / 1e6,
                    (b.x + b.w / 2) / 1e6,
                    (b.y + b.h / 2) / 1e6,
                )
            case Bar() as bar:
                shape = LineString(
                    [(bar.x1 / 1e6, bar.y1 / 1e6), (bar.x2 / 1e6, bar.y2 / 1e6)]
                ).buffer(bar.w / 2e6, quad_segs=64)
        events.append((item.order, item.dark, shape))
    events += [
        (r.order, r.dark, Polygon([(x / 1e6, y / 1e6) for x, y in r.ring])) for r in layer.regions
    ]
    area: shapely.Geometry = Polygon()
    for _, dark, shape in sorted(events, key=lambda e: e[0]):
        area = shapely.union(area, shape) if dark else shapely.difference(area, shape)
    return area


LAYERS = [
    "copper-near.gbr",
    "copper-far.gbr",
    "mask-near.gbr",
    "mask-far.gbr",
    "paste-near.gbr",
    "legend-far.gbr",
]


@pytest.mark.parametrize("name", LAYERS)
def test_both_readers_see_the_same_area(folder: Path, name: str) -> None:
    theirs, mine = (
        as_shapely(opened(folder / name)),
        ours_as_shapely((folder / name).read_bytes(), name),
    )
    assert theirs.area == pytest.approx(mine.area, rel=1e-5)
    assert shapely.symmetric_difference(theirs, mine).area < 1e-3


@pytest.mark.parametrize("side", [NEAR, FAR])
def test_apertures_and_pads_are_those_of_the_design(
    folder: Path, finished: Design, library: Library, side: str
) -> None:
    view = board_view(finished, library)
    layer = opened(folder / f"copper-{side}.gbr")
    flashes = {(round(f.x, 4), round(f.y, 4)) for f in layer.objects if isinstance(f, Flash)}
    pads = {
        (round(c.shape.x / 1e6, 4), round(c.shape.y / 1e6, 4))
        for c in (*view.pads, *view.wiring)
        if side in c.sides and not isinstance(c.shape, Bar)
    }
    assert flashes == pads
    widths = {round(line.aperture.diameter, 4) for line in layer.objects if isinstance(line, Line)}
    assert widths <= {0.2, 0.3}


@pytest.mark.parametrize(
    ("name", "plated"), [("holes-plated.drl", True), ("holes-unplated.drl", False)]
)
def test_drill_hits_are_those_of_the_design(
    folder: Path, finished: Design, library: Library, name: str, plated: bool
) -> None:
    view = board_view(finished, library)
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        file = ExcellonFile.open(folder / name)
    hits = sorted(
        (round(h.x, 4), round(h.y, 4), round(h.aperture.diameter, 4)) for h in file.objects
    )
    assert hits == sorted(
        (round(h.x / 1e6, 4), round(h.y / 1e6, 4), round(h.d / 1e6, 4))
        for h in view.holes
        if h.plated == plated
    )
    assert all(h.aperture.plated is plated for h in file.objects)


def test_the_outline_is_closed_and_has_the_size_of_the_brief(folder: Path) -> None:
    layer = opened(folder / "profile.gbr")
    (left, bottom), (right, top) = layer.bounding_box(MM)
    assert (right - left, top - bottom) == pytest.approx((64.1, 42.1), abs=0.01)
    ends = [(round(o.x1, 3), round(o.y1, 3)) for o in layer.objects]
    starts = [(round(o.x2, 3), round(o.y2, 3)) for o in layer.objects]
    assert sorted(ends) == sorted(starts)
    length = sum(
        math.dist((o.x1, o.y1), (o.x2, o.y2)) for o in layer.objects if isinstance(o, Line)
    )
    assert length == pytest.approx(2 * (56 + 34), abs=1e-3)


def test_the_bare_board_netlist_is_read_by_the_library(
    folder: Path, finished: Design, library: Library
) -> None:
    view = board_view(finished, library)
    netlist = Netlist.open(folder / "netlist.ipc")
    records = [r for r in netlist.test_records if r.ref_des]
    contacts = {(r.ref_des, str(r.pin), r.net_name) for r in records if r.ref_des != "VIA"}
    designed = {(c.ref, c.pad, c.net or None) for c in view.pads}
    assert contacts == designed
    place = {(r.ref_des, str(r.pin)): (r.x, r.y) for r in records if r.ref_des == "U1"}
    pad = next(c for c in view.pads if c.ref == "U1" and c.pad == "1")
    assert place["U1", "1"] == pytest.approx((pad.shape.x / 1e6, pad.shape.y / 1e6), abs=0.002)
