"""The whole package: every file of a finished design, by its path."""

import json
from dataclasses import dataclass

from loquet.core.board import BoardView
from loquet.core.design import Design, plans_of
from loquet.core.fabrication.assembly_drawing import write_drawing
from loquet.core.fabrication.bare_board_netlist import write_test_netlist
from loquet.core.fabrication.drill import write_drill
from loquet.core.fabrication.gerber import write_layer, write_profile
from loquet.core.fabrication.job_file import guid, write_job
from loquet.core.fabrication.layers import Layer, plan_layers
from loquet.core.fabrication.panel_files import panel_files
from loquet.core.fabrication.tables import write_connectors, write_parts_list, write_places_list
from loquet.core.handover.package import device_files
from loquet.core.legend import legend_of
from loquet.core.library import Library
from loquet.core.lookup.panelling import panel_of
from loquet.core.panel import Panel
from loquet.core.pipeline import board_view
from loquet.core.plain.frozen import digest_of

PANEL = "panel"


@dataclass(frozen=True)
class Sheets:
    """A board with its layers as they are planned, the folder of its files (empty where the device
    has one board), what found no room on its legend, and its panel where one is asked for.
    """

    view: BoardView
    layers: tuple[Layer, ...]
    folder: str
    left_out: tuple[str, ...] = ()
    panel: Panel | None = None


def sheets_of(design: Design, library: Library) -> tuple[Sheets, ...]:
    """Every board of a finished design with its layers."""
    boards = design.brief.boards
    found = []
    for board in boards:
        view = board_view(design, library, board.name)
        folder = f"{board.folder}/" if len(boards) > 1 else ""
        legend = legend_of(view)
        panel = panel_of(view, design.choices, library)
        found.append(Sheets(view, plan_layers(view, legend), folder, legend.left_out, panel))
    return tuple(found)


def package_files(design: Design, sheets: tuple[Sheets, ...], library: Library) -> dict[str, bytes]:
    """All files by path; the same design gives the same bytes."""
    identity = digest_of(design)
    files: dict[str, bytes] = {}
    for sheet in sheets:
        made = board_files(design, sheet, library, identity)
        files |= {f"{sheet.folder}{path}": data for path, data in made.items()}
    made = device_files(design.brief, plans_of(design))
    files |= {f"firmware/{name}": data for name, data in made.items()}
    return {**files, "design.json": design_file(design)}


def board_files(design: Design, sheet: Sheets, library: Library, identity: str) -> dict[str, bytes]:
    """The files of one board."""
    view, layers = sheet.view, sheet.layers
    project = f"{design.brief.name} {sheet.folder.strip('/')}".strip().replace(" ", "-")
    panel = sheet.panel
    made = panel_files(view, layers, panel, project, guid(identity)) if panel else {}
    return {
        **{
            f"fabrication/{layer.file}": write_layer(layer, project, guid(identity))
            for layer in layers
        },
        "fabrication/profile.gbr": write_profile(view.profile, project, guid(identity)),
        "fabrication/holes-plated.drl": write_drill(view.holes, True, view.board.copper_layers),
        "fabrication/holes-unplated.drl": write_drill(view.holes, False, view.board.copper_layers),
        "fabrication/netlist.ipc": write_test_netlist(view),
        "fabrication/board.gbrjob": write_job(view, layers, project, guid(identity)),
        "assembly/parts.csv": write_parts_list(view, library),
        "assembly/places.csv": write_places_list(view, library),
        "assembly/connectors.csv": write_connectors(view, library),
        "assembly/drawing.pdf": write_drawing(view),
        **{f"{PANEL}/{name}": data for name, data in made.items()},
    }


def design_file(design: Design) -> bytes:
    """The design itself, so that the package can be proven and opened again."""
    return (
        json.dumps(design.model_dump(mode="json"), sort_keys=True, separators=(",", ":")) + "\n"
    ).encode()
