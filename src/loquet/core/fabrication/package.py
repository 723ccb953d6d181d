"""The whole package: every file of a finished design, by its path."""

import json

from loquet.core.board import BoardView
from loquet.core.board.outline import profile_of
from loquet.core.design import Design
from loquet.core.fabrication.assembly_drawing import write_drawing
from loquet.core.fabrication.bare_board_netlist import write_test_netlist
from loquet.core.fabrication.drill import write_drill
from loquet.core.fabrication.gerber import write_layer, write_profile
from loquet.core.fabrication.job_file import guid, write_job
from loquet.core.fabrication.layers import Layer
from loquet.core.fabrication.tables import write_parts_list, write_places_list
from loquet.core.frozen import digest_of
from loquet.core.handover.package import handover_files
from loquet.core.library import Library
from loquet.core.pins import PinPlan


def package_files(
    design: Design, view: BoardView, plan: PinPlan, layers: tuple[Layer, ...], library: Library
) -> dict[str, bytes]:
    """All files by path; the same design gives the same bytes."""
    identity = digest_of(design)
    project = view.brief.name.replace(" ", "-")
    files = {
        f"fabrication/{layer.file}": write_layer(layer, project, guid(identity)) for layer in layers
    }
    files |= {
        "fabrication/profile.gbr": write_profile(
            profile_of(view.brief.outline), project, guid(identity)
        ),
        "fabrication/holes-plated.drl": write_drill(view.holes, True),
        "fabrication/holes-unplated.drl": write_drill(view.holes, False),
        "fabrication/netlist.ipc": write_test_netlist(view),
        "fabrication/board.gbrjob": write_job(view, design.choices, layers, identity),
        "assembly/parts.csv": write_parts_list(view, library),
        "assembly/places.csv": write_places_list(view),
        "assembly/drawing.pdf": write_drawing(view),
        **{f"firmware/{name}": data for name, data in handover_files(view.brief, plan).items()},
        "design.json": design_file(design),
    }
    return files


def design_file(design: Design) -> bytes:
    """The design itself, so that the package can be proven and opened again."""
    return (
        json.dumps(design.model_dump(mode="json"), sort_keys=True, separators=(",", ":")) + "\n"
    ).encode()
