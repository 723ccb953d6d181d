"""Writing the Gerber job file (Ucamco Gerber Job Format Specification): the board as a whole, for the house."""

import json

from loquet import __version__
from loquet.core.board import BoardView
from loquet.core.design import Choices
from loquet.core.fabrication.layers import Layer


def write_job(
    view: BoardView, choices: Choices, layers: tuple[Layer, ...], project: str, project_id: str
) -> bytes:
    """Size, layer count, thickness, finish, design rules and the function of every file; `project` is its name as all files write it."""
    legend = "Black" if choices.colour == "white" else "White"
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
            "LayerNumber": 2,
            "BoardThickness": choices.thickness_um / 1000,
            "Finish": "ENIG" if choices.finish == "gold" else "HAL lead-free",
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
            }
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
                "FileFunction": "Plated,1,2,PTH",
                "FilePolarity": "Positive",
            },
            {
                "Path": "holes-unplated.drl",
                "FileFunction": "NonPlated,1,2,NPTH",
                "FilePolarity": "Positive",
            },
        ],
        "MaterialStackup": [
            {"Type": "Legend", "Color": legend},
            {"Type": "SolderMask", "Color": choices.colour.capitalize()},
            {"Type": "Copper", "Thickness": 0.035},
            {
                "Type": "Dielectric",
                "Thickness": choices.thickness_um / 1000 - 0.07,
                "Material": "FR4",
            },
            {"Type": "Copper", "Thickness": 0.035},
            {"Type": "SolderMask", "Color": choices.colour.capitalize()},
            {"Type": "Legend", "Color": legend},
        ],
    }
    return (json.dumps(content, indent=1) + "\n").encode()


def guid(digest: str) -> str:
    """A version 5 style identifier made of a digest."""
    return f"{digest[:8]}-{digest[8:12]}-5{digest[13:16]}-8{digest[17:20]}-{digest[20:32]}"
