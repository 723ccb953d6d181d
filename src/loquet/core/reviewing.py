"""All findings of a design as it stands now."""

from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of, run_rules
from loquet.core.design import SLICES, Design, SliceName
from loquet.core.library import Library
from loquet.core.parts import PartError
from loquet.core.pipeline import STATIONS_OF_STAGES, TITLES, board_view, chip_for, stale_slices
from loquet.core.provenance import Finding


def subject_of(design: Design, library: Library) -> Subject:
    """What the rules may look at: only slices that fit together; stale ones are left out."""
    stale = stale_slices(design)
    fresh = [name for name in SLICES if name not in stale]
    return Subject(
        brief=design.brief,
        choices=design.choices,
        house=library.house(design.choices.house),
        library=library,
        chip=chip_for(design.brief, library),
        plan=design.pins.value if design.pins and "pins" in fresh else None,
        circuit=design.circuit.value if design.circuit and "circuit" in fresh else None,
        view=board_view(only(design, fresh), library) if "placement" in fresh else None,
    )


def only(design: Design, fresh: list[SliceName]) -> Design:
    """The design with its stale slices hidden."""
    return design.model_copy(update={name: None for name in SLICES if name not in fresh})


def review(design: Design, library: Library) -> list[Finding]:
    """Findings of every rule that can speak, and a stop for each slice that is missing or stale."""
    stale = stale_slices(design)
    waiting = [stale_finding(design, name) for name in stale]
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
            ),
            *waiting,
        ]
    rules = tuple(
        r
        for r in RULES
        if not (r.id == "unrouted" and "routing" in stale)
        and not (r.id == "ground-island" and "pour" in stale)
    )
    return sorted(
        [*findings_of(run_rules(rules, subject)), *waiting],
        key=lambda f: {"stop": 0, "look": 1, "note": 2}[f.severity],
    )


def stale_finding(design: Design, name: SliceName) -> Finding:
    """A stop that says which stage has to run."""
    title = TITLES[name]
    made = getattr(design, name) is not None
    sentence = (
        f"The {title} was made from an earlier state of the design."
        if made
        else f"There is no {title} yet."
    )
    return Finding(
        rule="stale",
        severity="stop",
        station=STATIONS_OF_STAGES[name],
        sentence=sentence,
        way_out=f"Make the {title} {'anew' if made else ''}".strip() + ".",
    )
