"""The proof: from the files' bytes to a verdict, with how much was proven."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from loquet.core.board.copper import FAR, NEAR, BoardView
from loquet.core.checks.measuring import Measured, too_close
from loquet.core.fabrication.layers import Layer, plan_layers
from loquet.core.geometry import middle_of
from loquet.core.legend import legend_of
from loquet.core.pins import PinPlan
from loquet.core.proof.agreement import Fault, compare_holes, compare_layer, compare_profile, fault
from loquet.core.proof.connecting import Fabric, Piece, rebuild
from loquet.core.proof.drill_reader import read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, read_gerber
from loquet.core.proof.listing import compare_lists, compare_netlist, compare_pins
from loquet.core.proof.table_reader import read_bare_board_netlist, read_csv

SIDES = (NEAR, FAR)


@dataclass(frozen=True)
class Proof:
    """How many nets, pads and gaps were proven, how many keys scanned, how many copies found whole
    on panels, and every fault found.
    """

    nets: int
    pads: int
    gaps: int
    holes: int
    faults: tuple[Fault, ...]
    keys: int = 0
    copies: int = 0

    @property
    def holds(self) -> bool:
        """Whether the files hold the design."""
        return not self.faults


def prove(
    files: dict[str, bytes],
    view: BoardView,
    headers: Mapping[str, PinPlan],
    layers: tuple[Layer, ...] | None = None,
) -> Proof:
    """Read every file back and compare it with the design (`layers` where its layer plan is at
    hand, pin plans by the header's path); an unreadable file is a fault.
    """
    try:
        return prove_readable(files, view, headers, layers or plan_layers(view, legend_of(view)))
    except FileFault as problem:
        return Proof(0, 0, 0, 0, (Fault(problem.file, "", 0, 0, f"{problem}."),))


def wanted_file(files: dict[str, bytes], path: str) -> bytes:
    """A file's bytes; raises FileFault where it is missing."""
    if path not in files:
        raise FileFault(path, 0, "is missing")
    return files[path]


def prove_readable(
    files: dict[str, bytes],
    view: BoardView,
    headers: Mapping[str, PinPlan],
    layers: tuple[Layer, ...],
) -> Proof:
    """The proof where all files can be read."""
    read: dict[str, ReadLayer] = {}
    for layer in layers:
        read[layer.file] = read_gerber(wanted_file(files, f"fabrication/{layer.file}"), layer.file)
    profile = read_gerber(wanted_file(files, "fabrication/profile.gbr"), "profile.gbr")
    plated = read_drill(wanted_file(files, "fabrication/holes-plated.drl"), "holes-plated.drl")
    unplated = read_drill(
        wanted_file(files, "fabrication/holes-unplated.drl"), "holes-unplated.drl"
    )
    copper = {
        layer.file.removeprefix("copper-").removesuffix(".gbr"): read[layer.file]
        for layer in layers
        if layer.function.startswith("Copper")
    }
    fabric = rebuild(copper, [*plated, *unplated])
    faults = netlist_faults(fabric, view)
    gaps, gap_faults = measure_gaps(fabric, view)
    faults += gap_faults
    for layer in layers:
        faults += compare_layer(layer, read[layer.file]) + compare_function(layer, read[layer.file])
    faults += compare_profile(view.profile, profile)
    faults += compare_holes(view, plated, "holes-plated.drl", True) + compare_holes(
        view, unplated, "holes-unplated.drl", False
    )
    faults += compare_netlist(
        view, read_bare_board_netlist(wanted_file(files, "fabrication/netlist.ipc"), "netlist.ipc")
    )
    parts = read_csv(wanted_file(files, "assembly/parts.csv"), "parts.csv")
    places = read_csv(wanted_file(files, "assembly/places.csv"), "places.csv")
    faults += compare_lists(view, parts, places)
    for path, plan in headers.items():
        faults += compare_pins(plan, wanted_file(files, path).decode("ascii", "replace"), path)
    return Proof(
        len(view.circuit.nets), len(view.pads), gaps, len(plated) + len(unplated), tuple(faults)
    )


def compare_function(layer: Layer, read: ReadLayer) -> list[Fault]:
    """What the file says that it is: a copper file taken for the other side turns the whole board
    round.
    """
    said = (read.attributes.get(".FileFunction", ""), read.attributes.get(".FilePolarity", ""))
    wanted = (layer.function, "Negative" if layer.negative else "Positive")
    return (
        []
        if said == wanted
        else [
            fault(
                layer.file, "", 0, 0, f"says that it is {' '.join(said)}, and is {' '.join(wanted)}"
            )
        ]
    )


def netlist_faults(fabric: Fabric, view: BoardView) -> list[Fault]:
    """Nets of the design that are open or joined in the copper of the files."""
    where = pad_groups(fabric, view)
    faults: list[Fault] = []
    owner_of_group: dict[int, str] = {}
    first_of_net: dict[str, tuple[int, str]] = {}
    for (ref, number, x, y, net), group in where.items():
        if group < 0:
            faults.append(
                fault("copper", net, x, y, f"{ref} pad {number} of {net or 'no net'} has no copper")
            )
            continue
        label = net or f"{ref} pad {number}"
        other = owner_of_group.setdefault(group, label)
        if other != label:
            faults.append(fault("copper", net, x, y, f"{label} is joined with {other}"))
        start, start_name = first_of_net.setdefault(label, (group, f"{ref} pad {number}"))
        if start != group:
            faults.append(
                fault(
                    "copper",
                    net,
                    x,
                    y,
                    f"{net} is open between {start_name} and {ref} pad {number}",
                )
            )
    return faults


def pad_groups(fabric: Fabric, view: BoardView) -> dict[tuple[str, str, int, int, str], int]:
    """For each designed pad the group of the copper at its middle, or -1 where there is none."""
    found: dict[tuple[str, str, int, int, str], int] = {}
    trees: dict[str, tuple[shapely.STRtree, NDArray[np.int64]]] = {}
    for side in SIDES:
        numbers = fabric.on(side)
        trees[side] = (shapely.STRtree([fabric.pieces[i].core for i in numbers]), numbers)
    widest = max((piece.radius for piece in fabric.pieces), default=0.0)
    for pad in view.pads:
        for side in pad.sides:
            x, y = middle_of(pad.shape)
            key = (pad.ref, pad.pad, x, y, pad.net)
            tree, numbers = trees[side]
            point = shapely.Point(x, y)
            hits = [
                int(numbers[int(i)])
                for i in tree.query(point, predicate="dwithin", distance=widest)
            ]
            pads = [i for i in hits if covers(fabric.pieces[i], point)]
            group = int(fabric.groups[pads[0]]) if pads else -1
            if found.get(key, group) != group:
                group = -1
            found[key] = group
    return found


def walls_of(fabric: Fabric) -> list[Measured]:
    """The walls of all holes, which must keep away from inner copper that they do not join."""
    return [
        Measured(shapely.Point(w.x, w.y), w.d / 2, str(w.group) if w.group >= 0 else "", "a hole|")
        for w in fabric.walls
    ]


def covers(piece: Piece, point: shapely.Point) -> bool:
    """Whether the copper lies over a place."""
    return bool(piece.core.distance(point) <= piece.radius)


def measure_gaps(fabric: Fabric, view: BoardView) -> tuple[int, list[Fault]]:
    """How many pieces were measured, and gaps between separate groups that are below the house's
    limit.
    """
    faults = []
    for side in dict.fromkeys(piece.side for piece in fabric.pieces):
        things = [] if side in SIDES else walls_of(fabric)
        things += [
            Measured(
                fabric.pieces[i].core,
                fabric.pieces[i].radius,
                str(int(fabric.groups[i])),
                f"{fabric.pieces[i].name}|{fabric.pieces[i].net}",
            )
            for i in fabric.on(side)
        ]
        for pair in too_close(things, view.rules.gap_nm):
            first, second = (
                name.replace("|", " of ").removesuffix(" of ") for name in (pair.first, pair.second)
            )
            net = pair.first.partition("|")[2] or pair.second.partition("|")[2]
            faults.append(
                fault(
                    f"copper-{side}.gbr",
                    net,
                    pair.x,
                    pair.y,
                    f"{first} and {second} are only {max(pair.gap_nm, 0) / 1e6:.3f} mm apart",
                )
            )
    return len(fabric.pieces), faults
