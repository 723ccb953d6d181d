"""Writing the Gerber job file (Ucamco Gerber Job Format Specification): the board as a whole, for
the house.
"""

import json
from typing import Any

from loquet import __version__
from loquet.core.board import BoardView
from loquet.core.board.planes import INNER_GAP_NM
from loquet.core.fabrication.drill import drilled_through
from loquet.core.fabrication.layers import Layer

INNER_MM, PREPREG_MM = 0.035, 0.2
FINISHES = {
    "gold": "ENIG",
    "lead-free solder": "HAL lead-free",
    "leaded solder": "HAL SnPb",
    "silver": "ImAg",
    "tin": "ImSn",
}
"""Finishes as the format calls them (from memory); others stand as they are called here."""


def write_job(view: BoardView, layers: tuple[Layer, ...], project: str, project_id: str) -> bytes:
    """Size, layer count, thickness, finish, design rules and the function of every file; `project`
    is its name as all files write it.
    """
    making = view.brief.making
    legend = "Black" if making.colour == "white" else "White"
    left, bottom, right, top = view.outline.bounds
    rules = view.rules
    content = {
        "Header": {
            "GenerationSoftware": {
                "Vendor": "Larkfield",
                "Application": "Loquet",
                "Version": __version__,
            }
        },
        "GeneralSpecs": {
            "ProjectId": {"Name": project, "GUID": project_id, "Revision": "A"},
            "Size": {"X": (right - left) / 1e6, "Y": (top - bottom) / 1e6},
            "LayerNumber": view.board.copper_layers,
            "BoardThickness": making.thickness_mm,
            "Finish": FINISHES.get(making.finish, making.finish),
        },
        "DesignRules": [
            {
                "Layers": "Outer",
                "PadToPad": rules.drawn_gap_nm / 1e6,
                "PadToTrack": rules.drawn_gap_nm / 1e6,
                "TrackToTrack": rules.drawn_gap_nm / 1e6,
                "MinLineWidth": rules.signal_width_nm / 1e6,
                "TrackToRegion": rules.drawn_gap_nm / 1e6,
                "RegionToRegion": rules.drawn_gap_nm / 1e6,
            },
            *inner_rules(view),
        ],
        "FilesAttributes": [
            *(
                {
                    "Path": layer.file,
                    "FileFunction": layer.function,
                    "FilePolarity": "Negative" if layer.negative else "Positive",
                }
                for layer in layers
            ),
            {"Path": "profile.gbr", "FileFunction": "Profile,NP", "FilePolarity": "Positive"},
            {
                "Path": "holes-plated.drl",
                "FileFunction": drilled_through(True, view.board.copper_layers),
                "FilePolarity": "Positive",
            },
            {
                "Path": "holes-unplated.drl",
                "FileFunction": drilled_through(False, view.board.copper_layers),
                "FilePolarity": "Positive",
            },
        ],
        "MaterialStackup": [
            {"Type": "Legend", "Color": legend},
            {"Type": "SolderMask", "Color": making.colour.capitalize()},
            *stack(view.board.copper_layers, making.thickness_um, making.copper_um),
            {"Type": "SolderMask", "Color": making.colour.capitalize()},
            {"Type": "Legend", "Color": legend},
        ],
    }
    return (json.dumps(content, indent=1) + "\n").encode()


def stack(layers: int, thickness_um: int, copper_um: int) -> list[dict[str, Any]]:
    """Copper and what insulates it, from the near side: outer copper as chosen, 35 micrometres
    inside, and FR4 between, of four layers 0.2 mm under the outer ones (common practice, no
    source).
    """
    outer = {"Type": "Copper", "Thickness": copper_um / 1000}
    inner = {"Type": "Copper", "Thickness": INNER_MM}
    whole = round((thickness_um - 2 * copper_um) / 1000 - (layers - 2) * INNER_MM, 3)
    between = [whole] if layers == 2 else [PREPREG_MM, round(whole - 2 * PREPREG_MM, 3), PREPREG_MM]
    found = [outer]
    for number, thick in enumerate(between, 1):
        copper = outer if number == len(between) else inner
        found += [{"Type": "Dielectric", "Thickness": thick, "Material": "FR4"}, copper]
    return found


def inner_rules(view: BoardView) -> list[dict[str, Any]]:
    """Rules of the inner layers, where there are any: planes keep away from holes."""
    if view.board.copper_layers == 2:
        return []
    return [{"Layers": "Inner", "PadToRegion": INNER_GAP_NM / 1e6}]


def guid(digest: str) -> str:
    """A version 5 style identifier made of a digest."""
    return f"{digest[:8]}-{digest[8:12]}-5{digest[13:16]}-8{digest[17:20]}-{digest[20:32]}"
