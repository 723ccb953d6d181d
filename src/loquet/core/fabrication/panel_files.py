"""The files of a panel: every layer of its board as often as it lies there, with the rails' own
marks and holes, what is milled and scored, and where every copy and part lies.
"""

from loquet.core.board import BoardView
from loquet.core.board.copper import FAR, Hole
from loquet.core.board.model import PourPiece
from loquet.core.fabrication.drill import write_drill
from loquet.core.fabrication.gerber import write_layer, write_profile
from loquet.core.fabrication.layers import Drawn, Layer
from loquet.core.fabrication.tables import TURN, mm, table
from loquet.core.geometry import Bar, Round, Seat
from loquet.core.panel import Panel
from loquet.core.panel.frame import MARK_BARE_NM, MARK_NM, Place

COPIES = "copies.csv"
COPIES_COLUMNS = ("Board", "X (mm)", "Y (mm)")
PLACES_COLUMNS = ("Board", "Where", "Board side", "Middle X (mm)", "Middle Y (mm)", TURN)
SCORE = "score.gbr"


def panel_files(
    view: BoardView, layers: tuple[Layer, ...], panel: Panel, project: str, project_id: str
) -> dict[str, bytes]:
    """All files of a panel by name."""
    holes = (*(moved_hole(h, at) for at in panel.copies for h in view.holes), *panel.holes)
    copper = view.board.copper_layers
    files = {
        layer.file: write_layer(panel_layer(layer, panel), project, project_id, "Array")
        for layer in layers
    }
    files |= {
        "profile.gbr": write_profile(panel.pieces, project, project_id, "Array"),
        "holes-plated.drl": write_drill(holes, True, copper),
        "holes-unplated.drl": write_drill(holes, False, copper),
        COPIES: table(
            COPIES_COLUMNS, [(str(n), mm(x), mm(y)) for n, (x, y) in enumerate(panel.copies, 1)]
        ),
        "places.csv": table(PLACES_COLUMNS, place_rows(view, panel)),
    }
    if panel.scores:
        files[SCORE] = write_layer(score_layer(panel), project, project_id, "Array")
    return files


def panel_layer(layer: Layer, panel: Panel) -> Layer:
    """A layer of the board at every copy; copper and mask have the marks of the rails as well."""
    objects = [moved_object(o, at) for at in panel.copies for o in layer.objects]
    pieces = tuple(moved_piece(p, at) for at in panel.copies for p in layer.pieces)
    what = layer.function.split(",")[0]
    if what == "Copper" and not layer.function.endswith("Inr"):
        objects += [Drawn(Round(x, y, MARK_NM), "FiducialPad,Panel") for x, y in panel.marks]
    if what == "Soldermask":
        objects += [Drawn(Round(x, y, MARK_BARE_NM), "Material") for x, y in panel.marks]
        objects += [
            Drawn(Round(h.x, h.y, h.d + 200_000), "Material")
            for h in panel.holes
            if h.owner == "tooling"
        ]
    return Layer(layer.file, layer.function, tuple(objects), pieces, layer.negative)


def score_layer(panel: Panel) -> Layer:
    """The lines along which a scored panel breaks."""
    lines = (Bar(*first, *last, 100_000) for first, last in panel.scores)
    return Layer(SCORE, "Vcut", tuple(Drawn(line, "Other,Score") for line in lines))


def moved_object(drawn: Drawn, at: Place) -> Drawn:
    """An object at a copy."""
    return Drawn(Seat(*at).shape(drawn.shape), drawn.function, drawn.net, drawn.ref, drawn.pad)


def moved_piece(piece: PourPiece, at: Place) -> PourPiece:
    """A poured piece at a copy."""
    x, y = at
    outer, *holes = (tuple((u + x, v + y) for u, v in ring) for ring in (piece.outer, *piece.holes))
    return piece.model_copy(update={"outer": outer, "holes": tuple(holes)})


def moved_hole(hole: Hole, at: Place) -> Hole:
    """A hole at a copy."""
    x, y = at
    return Hole(hole.x + x, hole.y + y, hole.d, hole.plated, hole.net, hole.owner, hole.keep_nm)


def place_rows(view: BoardView, panel: Panel) -> list[tuple[str, ...]]:
    """One row for each part of each copy, copy by copy, as the machine fills them."""
    refs = [c.ref for c in view.circuit.components if not c.bare]
    return [
        (
            str(number),
            ref,
            FAR if view.seats[ref].far else "near",
            mm(view.seats[ref].x + x),
            mm(view.seats[ref].y + y),
            str(view.seats[ref].turn_deg),
        )
        for number, (x, y) in enumerate(panel.copies, 1)
        for ref in refs
    ]
