"""What a proof covered, as figures: each says what was counted, and in what."""

from collections.abc import Mapping

from loquet.core.provenance import Source, Working, given

COUNTED = (
    (
        "nets",
        "nets",
        "counted, nets of the design that were found whole and apart in the copper of the files",
    ),
    (
        "pads",
        "pads",
        "counted, pads of the design, each found in the copper of the files at its place",
    ),
    (
        "gaps",
        "gaps",
        "counted, pieces of copper whose distance to every piece of another net was measured",
    ),
    (
        "holes",
        "holes",
        "counted, holes read back from the drill files and compared with the design",
    ),
    (
        "keys",
        "keys scanned",
        "counted, keys pressed one by one on the nets of the files, knowing parts and pins alone",
    ),
    (
        "copies",
        "copies on panels",
        (
            "counted, copies of a board found whole in the files of its panel, read back and"
            " compared with those of the single board"
        ),
    ),
)


def proof_workings(figures: Mapping[str, int], files: int) -> tuple[Working, ...]:
    """The figures of a kept proof (see `compiling.proof_figures`), counted in so many files."""
    return tuple(
        Working(
            id=f"proof.{name}",
            title=title.capitalize(),
            value=figures.get(name, 0),
            unit=title,
            shown=str(figures.get(name, 0)),
            formula=formula,
            inputs=(given("files", files, "", "this package, read back from its bytes"),),
            source=Source(
                kind="computed", text="the proof, which reads the files with a reader of its own"
            ),
        )
        for name, title, formula in COUNTED
        if name != "copies" or figures.get(name, 0)
    )
