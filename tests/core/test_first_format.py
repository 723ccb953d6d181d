"""Briefs of the first format: read, they give the device that they gave before the things had
kinds.

The plans, parts, nets and seats beside them were written by the last version that knew that format
only; where the placer seats what the brief leaves open is its own affair.
"""

import json
from typing import Any

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import read_brief
from loquet.core.brief.first.model import Brief as FirstBrief
from loquet.core.circuit.model import RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.pipeline import StageRefused, run_stage
from tests.conftest import ROOT

FIRST = ROOT / "tests" / "data" / "first"
NAMES = sorted(p.name.removesuffix(".brief.json") for p in FIRST.glob("*.brief.json"))


def made_of(design: Design) -> dict[str, Any]:
    found: dict[str, Any] = {}
    if design.pins:
        plan = slice_of(design.pins)
        found["pins"] = [[a.signal, a.net, a.kind, a.pin] for a in plan.assignments]
    if design.circuit:
        circuit = slice_of(design.circuit)
        found["parts"] = [
            [c.ref, c.role, c.part, c.value, [list(pad) for pad in sorted(c.pads.items())]]
            for c in circuit.components
        ]
        found["nets"] = [[n.name, n.kind, len(n.pads)] for n in circuit.nets]
    if design.placement:
        parts = slice_of(design.placement).parts
        found["seats"] = [[p.ref, p.x_nm, p.y_nm, p.turn_deg, p.far] for p in parts if p.locked]
    return found


@pytest.mark.parametrize("name", NAMES)
def test_the_same_device_comes_of_it(name: str) -> None:
    library = bundled_library()
    design = Design(brief=read_brief((FIRST / f"{name}.brief.json").read_bytes(), name))
    try:
        for stage in ("pins", "circuit", "placement"):
            design = run_stage(design, stage, library)  # type: ignore[arg-type]
    except (StageRefused, RecipeNotPossible):
        assert "ended" in json.loads((FIRST / f"{name}.made.json").read_text())
    made = made_of(design)
    wanted = json.loads((FIRST / f"{name}.made.json").read_text())
    if "ended" not in wanted:
        seated = {row[0] for row in made["seats"]}
        wanted["seats"] = [row for row in wanted["seats"] if row[0] in seated]
        assert made == wanted
        return
    # These had no circuit then, and their ports no pads: which pin carries a line may differ now,
    # the lines may not.
    lines = [[row[:3] for row in found.get("pins", [])] for found in (made, wanted)]
    assert lines[0] == lines[1]


def test_the_first_format_takes_what_it_always_took() -> None:
    """The schema that was published for it then, kept as a file; only names in pin tables have been
    held to patterns since.
    """
    kept = json.loads((FIRST / "brief.schema.json").read_text("utf-8"))
    now = json.loads(json.dumps(FirstBrief.model_json_schema(), sort_keys=True))
    plain_kept, plain_now = bare(kept), bare(now)
    for name in ("OwnPad", "PinTable"):
        del plain_kept["$defs"][name], plain_now["$defs"][name]
    assert plain_kept == plain_now


def bare(value: Any) -> Any:
    """A schema without its words."""
    if isinstance(value, dict):
        return {k: bare(v) for k, v in value.items() if k not in ("title", "description")}
    return [bare(v) for v in value] if isinstance(value, list) else value
