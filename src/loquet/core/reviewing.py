"""All findings of a design as it stands now."""

from loquet.core.board import BoardView
from loquet.core.brief.shares import share_of
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import ReadBy, Subject, findings_of, run_rules
from loquet.core.design import Design, SliceName, plans_of, slice_of
from loquet.core.freshness import stale_slices, stale_subjects
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.lookup.project_library import project_library
from loquet.core.parts import PartError
from loquet.core.pipeline import board_view
from loquet.core.provenance import Finding


def subject_of(design: Design, library: Library) -> Subject:
    """What the rules may look at: only slices that fit together; stale ones are left out."""
    stale, library = stale_subjects(design), project_library(design, library)
    names = {name for name, _ in stale}
    return Subject(
        brief=design.brief,
        choices=design.choices,
        house=library.house(design.choices.house),
        library=library,
        brains=read_by(design, library, stale),
        circuit=slice_of(design.circuit) if design.circuit and "circuit" not in names else None,
        views=fresh_views(design, library, stale),
    )


def read_by(
    design: Design, library: Library, stale: tuple[tuple[SliceName, str], ...]
) -> tuple[ReadBy, ...]:
    """Every brain with what it reads, its chip, and its plan where that is fresh."""
    brief, plans = design.brief, plans_of(design)
    if not brief.brains:
        return (ReadBy(brief),)
    return tuple(
        ReadBy(
            share=share_of(brief, brain.name),
            chip=chip_for(brief, library, brain.name),
            plan=None if ("pins", brain.name) in stale else plans.get(brain.name),
        )
        for brain in brief.brains
    )


def fresh_views(
    design: Design, library: Library, stale: tuple[tuple[SliceName, str], ...]
) -> tuple[BoardView, ...]:
    """Every placed board as far as it is fresh; what is stale of it is left out."""
    if any(name == "circuit" for name, _ in stale):
        return ()
    shown = design.model_copy(
        update={
            name: {s: made for s, made in getattr(design, name).items() if (name, s) not in stale}
            for name in ("routing", "pour")
        }
    )
    return tuple(
        board_view(shown, library, board.name)
        for board in design.brief.boards
        if ("placement", board.name) not in stale
    )


def review(design: Design, library: Library) -> list[Finding]:
    """Findings of every rule that can speak; work that is not done yet is none (`stale_slices`
    names it).
    """
    stale = stale_slices(design)
    try:
        subject = subject_of(design, library)
    except PartError as error:
        return [
            Finding(
                rule="part-known",
                severity="stop",
                station="brief",
                sentence=f"{error.part} {error.problem}.",
                way_out=error.way_out,
            )
        ]
    rules = tuple(
        r
        for r in RULES
        if not (r.id == "unrouted" and "routing" in stale)
        and not (r.id == "ground-island" and "pour" in stale)
    )
    order = {"stop": 0, "look": 1, "note": 2}
    return sorted(findings_of(run_rules(rules, subject)), key=lambda f: order[f.severity])
