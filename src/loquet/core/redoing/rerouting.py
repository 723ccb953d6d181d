"""Some nets of a board routed again while all others stay exactly as they lie."""

from loquet.core.board import Routing, Track, Via, Wires
from loquet.core.design import Design, Made
from loquet.core.freshness import inputs_digest
from loquet.core.library import Library
from loquet.core.pipeline import Progress, StageRefused, run_stage


def nets_rerouted(
    design: Design, library: Library, board: str, nets: frozenset[str], progress: Progress
) -> Made[Routing]:
    """The routing of a board with these nets made anew; what a person drew of them stays.

    Raises StageRefused where the board was never routed, or has none of these nets.
    """
    before = routed_before(design, board, nets).value
    fast = Wires(
        tracks=tuple(t for t in before.tracks if t.by_hand or t.net not in nets),
        vias=tuple(v for v in before.vias if v.by_hand or v.net not in nets),
    )
    drawn = Wires(
        tracks=tuple(t for t in before.tracks if t.by_hand),
        vias=tuple(v for v in before.vias if v.by_hand),
    )
    return routed_about(design, library, board, fast, drawn, progress)


def routed_about(
    design: Design, library: Library, board: str, fast: Wires, drawn: Wires, progress: Progress
) -> Made[Routing]:
    """The routing of a board about these wires, of which only those a person has `drawn` are marked
    as theirs.
    """
    held = design.choices.model_copy(update={"wires": {**design.choices.wires, board: fast}})
    routed = run_stage(
        design.model_copy(update={"choices": held}), "routing", library, progress, board
    ).routing[board]
    theirs = {*map(key_of, drawn.tracks), *map(key_of, drawn.vias)}
    value = routed.value.model_copy(
        update={
            "tracks": tuple(
                t.model_copy(update={"by_hand": key_of(t) in theirs}) for t in routed.value.tracks
            ),
            "vias": tuple(
                v.model_copy(update={"by_hand": key_of(v) in theirs}) for v in routed.value.vias
            ),
        }
    )
    return Made[Routing](made_from=inputs_digest(design, "routing", board), value=value)


def routed_before(design: Design, board: str, nets: frozenset[str]) -> Made[Routing]:
    """The routing of a board that has these nets; raises StageRefused."""
    before = design.routing.get(board)
    if before is None:
        raise StageRefused("routing", f"{board} is not routed yet.", "Route it first.")
    known = {net.name for net in next(iter(design.circuit.values())).value.on(board).nets}
    if not nets <= known:
        missing = sorted(nets - known)[0]
        raise StageRefused("routing", f"There is no net '{missing}' on {board}.", "Pick another.")
    return before


def key_of(piece: Track | Via) -> tuple[object, ...]:
    """A piece of wiring without who drew it."""
    return tuple(piece.model_dump(exclude={"by_hand"}).values())
