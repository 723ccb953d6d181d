"""Figures of the product against published ones.

The source stands beside each; "from memory" where it is.
"""

import networkx as nx
import pytest

from loquet.catalogue.bundled import part
from loquet.core.board.current import track_width_mm
from loquet.core.design import Design, slice_of
from loquet.core.geometry import Box
from loquet.core.library import Library
from loquet.core.parts import pattern_of
from loquet.core.pipeline import board_view
from loquet.core.proof.connecting import rebuild
from loquet.core.proof.drill_reader import read_drill
from loquet.core.proof.gerber_reader import read_gerber
from loquet.core.quantities.preferred import E12, E24, E96
from loquet.core.release import Release


def test_track_width_for_one_ampere() -> None:
    # IPC-2221 section 6.2, worked from its formula: 1 A, 10 K, 35 um outer copper needs 16.3 square
    # mil, 0.30 mm
    assert track_width_mm(1.0, 10) == pytest.approx(0.30, abs=0.005)
    assert track_width_mm(1.0, 10) * 0.035 / 0.0254**2 == pytest.approx(16.3, abs=0.1)
    # inner layers carry half as much: k is 0.024 against 0.048
    assert track_width_mm(1.0, 10, outer=False) / track_width_mm(1.0, 10) == pytest.approx(
        2 ** (1 / 0.725)
    )
    with pytest.raises(ValueError, match="positive"):
        track_width_mm(0, 10)


def test_preferred_numbers() -> None:
    # IEC 60063 tables; E96 spot values
    assert E12 == (1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2)
    assert set(E12) < set(E24)
    assert len(E24) == 24
    assert {1.00, 1.02, 1.05, 1.47, 2.21, 4.99, 9.76} <= set(E96)


def box_of(part_or_code: str, number: str) -> Box:
    body = part(part_or_code).body
    shape = next(pad.shape for pad in pattern_of(body).pads if pad.number == number)
    assert isinstance(shape, Box)
    return shape


@pytest.mark.parametrize(
    ("name", "pad", "middle_mm", "size_mm"),
    [
        # IPC-7351B nominal patterns: RESC1608X55N has pads of about 0.8 x 0.95 mm at 1.6 mm; from
        # memory
        ("resistor-1608", "1", 0.80, (0.80, 0.95)),
        ("capacitor-2012", "1", 0.90, (1.15, 1.45)),
        # QFP50P900X900X160-48N: pads of about 1.5 x 0.28 mm at 8.4 mm; from memory
        ("LQFP48", "1", 4.20, (1.50, 0.28)),
        # QFP80P900X900X160-32N: pads of about 1.5 x 0.55 mm at 8.4 mm; from memory
        ("LQFP32", "1", 4.20, (1.50, 0.55)),
        # SOP65P640X120-20N: pads of about 1.45 x 0.40 mm at 5.8 mm; from memory
        ("TSSOP20", "1", 2.90, (1.50, 0.40)),
    ],
)
def test_land_patterns(name: str, pad: str, middle_mm: float, size_mm: tuple[float, float]) -> None:
    shape = box_of(name, pad)
    assert abs(shape.x) / 1e6 == pytest.approx(middle_mm, abs=0.06)
    assert shape.w / 1e6 == pytest.approx(size_mm[0], abs=0.12)
    assert shape.h / 1e6 == pytest.approx(size_mm[1], abs=0.06)


def test_quad_packages_are_numbered_anticlockwise_from_the_top_left() -> None:
    # JEDEC MS-026: seen from above, pin 1 at the top of the left side, counting anticlockwise
    first, thirteenth, last = box_of("LQFP48", "1"), box_of("LQFP48", "13"), box_of("LQFP48", "48")
    assert first.x < 0 < first.y
    assert thirteenth.y < 0 > thirteenth.x
    assert last.y > 0 > last.x


def test_both_size_codes_are_always_given() -> None:
    assert part("resistor-1608").size_codes == "inch 0603 / metric 1608 (1.6 x 0.80 mm)"


def test_connectivity_agrees_with_a_general_graph_library(
    finished: Design, released: Release, library: Library
) -> None:
    """What touches what, found again with polygons and networkx, gives the nets of the design."""
    near = read_gerber(released.files["fabrication/copper-near.gbr"], "near")
    far = read_gerber(released.files["fabrication/copper-far.gbr"], "far")
    holes = read_drill(released.files["fabrication/holes-plated.drl"], "holes")
    fabric = rebuild({"near": near, "far": far}, holes)
    graph = nx.Graph()
    solids = [p.core.buffer(p.radius) if p.radius else p.core for p in fabric.pieces]
    graph.add_nodes_from(range(len(solids)))
    import shapely

    for side in ("near", "far"):
        members = fabric.on(side)
        tree = shapely.STRtree([solids[i] for i in members])
        for a, b in tree.query([solids[i] for i in members], predicate="intersects").T:
            graph.add_edge(int(members[a]), int(members[b]))
    for hole in holes:
        wall = shapely.Point(hole.x, hole.y).buffer(hole.d / 2)
        met = [i for i, solid in enumerate(solids) if solid.intersects(wall)]
        graph.add_edges_from((met[0], other) for other in met[1:])
    groups = {frozenset(c) for c in nx.connected_components(graph)}
    ours: dict[int, set[int]] = {}
    for index, group in enumerate(fabric.groups):
        ours.setdefault(int(group), set()).add(index)
    assert groups == {frozenset(c) for c in ours.values()}
    named = {fabric.pieces[next(iter(g))].net for g in groups} - {""}
    assert named == {net.name for net in slice_of(finished.circuit).nets}
    assert board_view(finished, library).circuit.nets


def test_the_c_header_compiles(released: Release, tmp_path: object) -> None:
    # C11 by gcc -fsyntax-only
    import subprocess
    from pathlib import Path

    folder = Path(str(tmp_path))
    (folder / "pins.h").write_bytes(released.files["firmware/pins.h"])
    source = (
        '#include "pins.h"\n#define ROW(name, port, bit) {port, bit},\nstruct pin { char port; int'
        " bit; };\n"
    )
    source += "const struct pin buttons[BUTTON_COUNT] = { BUTTON_TABLE(ROW) };\n"
    (folder / "check.c").write_text(source)
    done = subprocess.run(
        ["gcc", "-std=c11", "-Wall", "-Werror", "-fsyntax-only", "check.c"],
        cwd=folder,
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr


def test_the_drawing_is_at_true_size(released: Release) -> None:
    import io

    from pypdf import PdfReader

    reader = PdfReader(io.BytesIO(released.files["assembly/drawing.pdf"]))
    assert len(reader.pages) == 2
    width, height = (float(v) / 72 * 25.4 for v in reader.pages[0].mediabox[2:])
    assert (width, height) == pytest.approx((210, 297), abs=0.1)  # ISO 216 A4
    assert reader.trailer["/Root"]["/ViewerPreferences"]["/PrintScaling"] == "/None"
    assert "seen from behind" in reader.pages[1].extract_text()
