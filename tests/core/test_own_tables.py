"""A pin table of one's own on a package of one's own: a bare chip without leads, and a module on
castellations that makes its rail, each to a proven board.
"""

from typing import Any

import pytest

from loquet.core.brief import Brief, brief_from_plain
from loquet.core.design import Choices, Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.parts import Part, PartError
from loquet.core.pipeline import bring_up_to_date, run_stage
from loquet.core.planning.feasibility import brief_faults
from loquet.core.power.budget import loads_of
from loquet.core.release import prove_package, release
from loquet.core.reviewing import review
from tests.making import Plain, device, plain_of, thing

QFN = {
    "family": "no-leads",
    "prefix": "own",
    "pins": 16,
    "pitch_mm": 0.5,
    "body_mm": [2.95, 3.05],
    "terminal_mm": [0.3, 0.5],
    "lead_mm": [0.2, 0.3],
    "exposed_mm": 1.7,
}
EDGES = {
    "family": "rows",
    "name": "own",
    "pins": 16,
    "pitch_mm": 2.54,
    "row_mm": 15.24,
    "pad_mm": [2.0, 1.6],
    "body_mm": [18, 22],
}
NAMES = [
    "5V",
    "GND",
    "3V3",
    "G0",
    "G1",
    "G2",
    "G3",
    "G4",
    "G5",
    "G6",
    "G7",
    "G8",
    "G9",
    "G10",
    "RUN",
    "GND2",
]
KEYS = (thing("button", "go", 20, 20), thing("button", "stop", 40, 20))


def package(body: Plain, terminals: Plain) -> Part:
    return Part.model_validate(
        {
            "id": "own/marl-body",
            "kind": "chip package",
            "description": "Package of the Marl R22",
            "body": body,
            "height_mm": 0.9,
            "price_cents": 0,
            "reference": "U",
            "evidence": "drawing",
            "evidence_text": "Marl data sheet page 3 (invented)",
            "terminals": terminals,
        }
    )


def pads(*fixed: tuple[str, str], ports: dict[str, list[str]]) -> list[Plain]:
    rows: list[Plain] = [{"pad": pad, "can": [can]} for pad, can in fixed]
    return rows + [{"pad": pad, "can": ["input", "output", *can]} for pad, can in ports.items()]


def brief_with(kind: str, table: list[Plain], *things: Plain) -> Brief:
    plain: Any = plain_of(device(thing(kind, "brain"), *things, *KEYS))
    for row in plain["things"]:
        if row["name"] == "brain":
            row |= {"part": "own", "table": "Marl R22"}
    own = {"name": "Marl R22", "module": kind == "ready-module", "package": "own/marl-body"}
    return brief_from_plain({**plain, "shelf": {"pin_tables": [{**own, "pads": table}]}})


CHIP = brief_with(
    "chip",
    pads(
        *(("1", "supply"), ("2", "ground"), ("17", "ground"), ("3", "reset")),
        ports={str(i): [] for i in range(4, 17)},
    ),
    thing("leads", "leads"),
    thing("light", "lamp", 60, 20),
)
MODULE = brief_with(
    "ready-module",
    pads(
        *(("5V", "supply"), ("GND", "ground"), ("GND2", "ground"), ("3V3", "gives")),
        ("RUN", "reset"),
        ports={f"G{i}": [f"adc.in{i}"] for i in range(11)},
    ),
    thing("host-feed", "host"),
    thing("stick", "slew", 60, 20),
)
BODIES = {
    "chip": package(QFN, {f"way {i}": {"pads": [str(i)], "does": "way"} for i in range(1, 18)}),
    "module": package(EDGES, {name: {"pads": [str(i + 1)]} for i, name in enumerate(NAMES)}),
}


@pytest.mark.parametrize(("name", "brief"), [("chip", CHIP), ("module", MODULE)])
def test_a_table_on_a_package_is_built(name: str, brief: Brief, library: Library) -> None:
    body = BODIES[name]
    design = Design(brief=brief, choices=Choices(shelf={body.id: body}))
    known = project_library(design, library)
    assert brief_faults(brief, known) == []
    made = bring_up_to_date(design, library)
    (circuit,) = (m.value for m in made.circuit.values())
    (brain,) = (c for c in circuit.components if c.is_chip)
    grounds = {"chip": {"2", "17"}, "module": {"2", "16"}}[name]
    assert {pad for pad, net in brain.pads.items() if net == "GROUND"} == grounds
    if name == "module":
        assert brain.pads["3"] == "SUPPLY_BRAIN"
    result = release(made, library)
    assert result.ready, [f.sentence for f in result.findings if f.severity == "stop"]
    assert prove_package(result.files, made, known).holds


def test_a_table_whose_pads_the_package_has_not_is_refused_in_words(library: Library) -> None:
    fields = {name: getattr(BODIES["module"], name) for name in Part.model_fields}
    terminals = {n: t for n, t in BODIES["module"].terminals.items() if n != "RUN"}
    wrong = Part(**{**fields, "terminals": terminals})
    design = Design(brief=MODULE, choices=Choices(shelf={wrong.id: wrong}))
    with pytest.raises(PartError, match="has no pad for 'RUN'"):
        project_library(design, library).find_chip("Marl R22")
    edit = {
        "kind": "use-pin-table",
        "name": "Marl R9",
        "text": "pad,port,can\n1,,input\n2,,ground\n",
    }
    lone = EDITS.validate_python({**edit, "package": "own/other"})
    with pytest.raises(EditRefused, match="own/other is no part of one's own"):
        apply(design, lone)
    taken = apply(design, EDITS.validate_python({**edit, "package": wrong.id}))
    table = taken.brief.shelf.pin_table("Marl R9")
    assert table is not None
    assert table.package == wrong.id
    bare = apply(design, EDITS.validate_python({**edit, "package": wrong.id, "module": False}))
    assert [thing.kind for thing in bare.brief.brains] == ["chip"]


def test_what_a_brain_by_table_draws_is_said_or_looked_at(library: Library) -> None:
    """On its package 210 mA are counted; unsaid, those of a small chip, with a look."""
    body = BODIES["chip"]
    fields = {name: getattr(body, name) for name in Part.model_fields}
    said = Part(**{**fields, "values": {"draws_ma": 210.0}})
    for part, milliamps, looks in ((said, 210.0, 0), (body, 8.0, 1)):
        design = Design(brief=CHIP, choices=Choices(shelf={part.id: part}))
        known = project_library(design, library)
        (load,) = (
            row for row in loads_of(CHIP, known.parts, known.screens) if row.thing == "brain"
        )
        assert load.currents.peak == milliamps
        made = run_stage(run_stage(design, "pins", library), "circuit", library)
        rows = [f for f in review(made, library) if "Nobody said what Marl R22" in f.sentence]
        assert [f.severity for f in rows] == ["look"] * looks
