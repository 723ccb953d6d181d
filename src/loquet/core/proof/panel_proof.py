"""Whether the files of a panel hold the board, proven from its own files, exactly as often as they
say, and nothing else but the rails' marks, holes and score lines.
"""

from collections import Counter
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from loquet.core.fabrication.layers import Layer
from loquet.core.fabrication.panel_files import COPIES, SCORE, panel_layer, score_layer
from loquet.core.geometry import Seat, middle_of
from loquet.core.panel import Panel
from loquet.core.panel.frame import Place
from loquet.core.proof.agreement import Fault, compare_layer, compare_profile, fault, same_way
from loquet.core.proof.drill_reader import ReadHole, read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, ReadObject, read_gerber
from loquet.core.proof.table_reader import read_csv

DRILLS = ("holes-plated.drl", "holes-unplated.drl")


def prove_panel(
    files: Mapping[str, bytes], panel: Panel, layers: tuple[Layer, ...]
) -> tuple[int, list[Fault]]:
    """How many copies were found whole, and what differs; `files` are those of one board, its
    panel's under `panel/`. Raises FileFault for a file that is missing or cannot be read.
    """
    faults: list[Fault] = []
    for layer in layers:
        single = read_gerber(wanted(files, f"fabrication/{layer.file}"), layer.file)
        name = f"panel/{layer.file}"
        plate = read_gerber(wanted(files, name), name)
        own = panel_layer(Layer(layer.file, layer.function, ()), panel)
        faults += compare_objects(name, single, plate, panel.copies, own)
        faults += compare_regions(name, single, plate, panel.copies)
        faults += compare_said(name, single, plate)
    for file in DRILLS:
        single_holes = read_drill(wanted(files, f"fabrication/{file}"), file)
        plate_holes = read_drill(wanted(files, f"panel/{file}"), f"panel/{file}")
        faults += compare_drills(f"panel/{file}", single_holes, plate_holes, panel)
    profile = read_gerber(wanted(files, "panel/profile.gbr"), "panel/profile.gbr")
    faults += compare_profile(panel.pieces, profile, "panel/profile.gbr")
    if panel.scores:
        scored = read_gerber(wanted(files, f"panel/{SCORE}"), f"panel/{SCORE}")
        faults += compare_layer(score_layer(panel), scored)
    faults += compare_copies(wanted(files, f"panel/{COPIES}"), panel.copies)
    return (0 if faults else len(panel.copies)), faults


def wanted(files: Mapping[str, bytes], path: str) -> bytes:
    """A file's bytes; raises FileFault where it is missing."""
    if path not in files:
        raise FileFault(path, 0, "is missing")
    return files[path]


def compare_objects(
    file: str, single: ReadLayer, plate: ReadLayer, copies: tuple[Place, ...], own: Layer
) -> list[Fault]:
    """Pads and strokes: those of the single board's file at every copy with their nets and names,
    and the panel's own.
    """
    expected = Counter(key_of(o, at) for at in copies for o in single.objects)
    expected.update((same_way(d.shape), True, "", "", "", d.function) for d in own.objects)
    found = Counter(key_of(o, (0, 0)) for o in plate.objects)
    return differing(file, expected, found, lambda key: middle_of(key[0])) + [
        fault(file, "", arc.x1, arc.y1, "an arc that is not in the design") for arc in plate.arcs
    ]


def key_of(item: ReadObject, at: Place) -> tuple[Any, ...]:
    """All that an object says, where it is moved so far."""
    shape = same_way(Seat(*at).shape(item.shape))
    return shape, item.dark, item.net, item.ref, item.pad, item.function


def compare_regions(
    file: str, single: ReadLayer, plate: ReadLayer, copies: tuple[Place, ...]
) -> list[Fault]:
    """Poured contours: at every copy those of the single board, drawn and cleared in the same
    order.
    """
    order = sorted(single.regions, key=lambda r: r.order)
    expected = {}
    for number, (dx, dy) in enumerate(copies):
        for rank, region in enumerate(order):
            ring = tuple((x + dx, y + dy) for x, y in region.ring)
            expected[ring, region.dark, region.net] = (number, rank)
    last = dict.fromkeys(range(len(copies)), -1)
    faults, seen = [], 0
    for region in sorted(plate.regions, key=lambda r: r.order):
        place = expected.get((region.ring, region.dark, region.net))
        wrong = "" if place else "a poured contour that is not in the design"
        if place is not None:
            seen += 1
            number, rank = place
            if rank != last[number] + 1:
                wrong = "a poured contour is drawn out of its order"
            last[number] = rank
        if wrong:
            faults.append(fault(file, region.net, region.ring[0][0], region.ring[0][1], wrong))
    if seen < len(expected):
        faults.append(fault(file, "", 0, 0, f"{len(expected) - seen} poured contours are missing"))
    return faults


def compare_said(file: str, single: ReadLayer, plate: ReadLayer) -> list[Fault]:
    """A panel's file says that it is the same layer, of an array."""
    names = (".FileFunction", ".FilePolarity")
    same = all(single.attributes.get(n) == plate.attributes.get(n) for n in names)
    if same and plate.attributes.get(".Part") == "Array":
        return []
    return [fault(file, "", 0, 0, "does not say that it is this layer of a panel")]


def compare_drills(
    file: str, single: Iterable[ReadHole], plate: Iterable[ReadHole], panel: Panel
) -> list[Fault]:
    """Holes: the single board's at every copy, and the panel's own."""
    plated = file.endswith(DRILLS[0])
    singles = list(single)
    expected = Counter(
        (h.x + dx, h.y + dy, h.d, h.plated) for dx, dy in panel.copies for h in singles
    )
    expected.update((h.x, h.y, h.d, h.plated) for h in panel.holes if h.plated == plated)
    found = Counter((h.x, h.y, h.d, h.plated) for h in plate)
    return differing(file, expected, found, lambda key: (key[0], key[1]))


def differing(
    file: str,
    expected: Counter[Any],
    found: Counter[Any],
    middle: Callable[[Any], tuple[float, float]],
) -> list[Fault]:
    """What is missing and what is too many."""
    return [
        fault(file, "", middle(key)[0], middle(key)[1], "something of a copy is missing or changed")
        for key in expected - found
    ] + [
        fault(
            file,
            "",
            middle(key)[0],
            middle(key)[1],
            "something that is on no copy and not of the rails",
        )
        for key in found - expected
    ]


def compare_copies(data: bytes, copies: tuple[Place, ...]) -> list[Fault]:
    """The list of copies says where they lie, to the micrometre."""
    said = [(row["X (mm)"], row["Y (mm)"]) for row in read_csv(data, f"panel/{COPIES}")]
    if said == [(f"{x / 1e6:.3f}", f"{y / 1e6:.3f}") for x, y in copies]:
        return []
    return [fault(f"panel/{COPIES}", "", 0, 0, "the list of copies differs from the panel")]
