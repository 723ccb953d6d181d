"""Every figure worked out again from what it shows: all symbols of a formula are inputs, every input says where it is from, and the value follows.

The arithmetic here is Python's own; prefixes are those of the SI, preferred values those of IEC 60063.
"""

import ast
import math
import re
from collections.abc import Iterable, Iterator
from datetime import date

import pytest

from loquet.api.describing import all_findings, tally
from loquet.catalogue.library import bundled_library
from loquet.compiling import proof_figures
from loquet.core.brief import Brief
from loquet.core.design import SLICES, Design
from loquet.core.pinning import report_pins, schemes_of, sums, ways_for
from loquet.core.pins.planning import budget_workings
from loquet.core.pipeline import bring_up_to_date
from loquet.core.proof.figures import proof_workings
from loquet.core.provenance import Working
from loquet.core.quantities.preferred import E12, E24
from loquet.core.release import Release
from loquet.demo.scenario import BOARD_BRIEFS, DEMO_BRIEFS, demo_brief
from loquet.standins.board_house import inspect, quote
from loquet.standins.quote_figures import each_figure, line_figures, ordered_figure, total_figure

PREFIXES = {"k": 1e3, "M": 1e6, "m": 1e-3, "µ": 1e-6, "n": 1e-9, "p": 1e-12}
PREFIXED = ("Ω", "A", "V", "F", "Hz", "s", "W")
COUNTED = "counted"
SERIES = {"nearest E12": E12, "nearest E24": E24}


def scale(unit: str) -> float:
    """How many base units a unit is; 1 where it has no SI prefix (mm, mm² and cents stay as they are)."""
    if len(unit) > 1 and unit[1:] in PREFIXED:
        return PREFIXES.get(unit[0], 1.0)
    return 0.01 if unit == "%" else 1.0


def evaluated(text: str, working: Working) -> float:
    """The value of a formula with its inputs put in."""
    names = sorted(working.inputs, key=lambda i: -len(i.name))
    values: dict[str, float] = {}
    for index, given in enumerate(names):
        pattern = rf"(?<!\w){re.escape(given.name)}(?!\w)"
        text, found = re.subn(pattern, f" v{index} ", text)
        if found:
            values[f"v{index}"] = float(given.value) * scale(given.unit)
    text = text.replace(" x ", " * ").replace("^", "**").replace("²", "**2")
    tree = ast.parse(text.strip(), mode="eval")
    return float(
        eval(compile(tree, working.id, "eval"), {"__builtins__": {}}, {**values, **FUNCTIONS})
    )


FUNCTIONS = {
    "sqrt": math.sqrt,
    "max": max,
    "min": min,
    "ceil": math.ceil,
    "floor": math.floor,
}


def parted(text: str) -> tuple[str, str]:
    """The arithmetic of a formula, and the words behind its first comma that stands in no parentheses."""
    depth = 0
    for index, letter in enumerate(text):
        depth += {"(": 1, ")": -1}.get(letter, 0)
        if letter == "," and depth == 0:
            return text[:index], text[index + 1 :].strip()
    return text, ""


def workings_of(brief: Brief, upto: str) -> Iterator[Working]:
    library = bundled_library()
    design = Design(brief=brief)
    if upto:
        design = bring_up_to_date(design, library, upto)  # type: ignore[arg-type]
    yield from tally(design, library)
    yield from sums(brief, library)
    for card in schemes_of(design, library):
        yield from card.workings
    for name in SLICES:
        for made in getattr(design, name).values():
            yield from getattr(made.value, "workings", ())
    for finding in all_findings(design, library):
        if finding.working:
            yield finding.working


def faults_in(workings: Iterable[Working]) -> list[str]:
    """What is wrong with figures, worked out again."""
    wrong = []
    for working in workings:
        for given in working.inputs:
            if not given.origin.strip():
                wrong.append(f"{working.id}: {given.name} has no origin")
        if not working.source.text.strip():
            wrong.append(f"{working.id}: no source")
        formula, note = parted(working.formula)
        if formula == COUNTED:
            if not working.inputs:
                wrong.append(f"{working.id}: counted from nothing")
            continue
        try:
            value = evaluated(formula, working) / scale(working.unit)
        except (SyntaxError, NameError, ValueError, TypeError) as problem:
            wrong.append(
                f"{working.id}: '{working.formula}' {problem} {[(i.name, i.value, i.unit) for i in working.inputs]}"
            )
            continue
        if note in SERIES:
            power = 10.0 ** math.floor(math.log10(value))
            steps = [s * power * d for s in SERIES[note] for d in (0.1, 1, 10)]
            value = min(steps, key=lambda step: abs(math.log(step / value)))
        if abs(value - working.value) > 0.002 * max(abs(working.value), 0.02):
            wrong.append(
                f"{working.id}: {working.formula} gives {value:g}, shown is {working.value:g} {working.unit} {[(i.name, i.value, i.unit) for i in working.inputs]}"
            )
    return wrong


CASES = [(name, "pour" if name in BOARD_BRIEFS else "") for name in DEMO_BRIEFS]


@pytest.mark.parametrize(("name", "upto"), CASES)
def test_every_figure_follows_from_its_inputs(name: str, upto: str) -> None:
    assert faults_in(workings_of(demo_brief(name), upto)) == []


def test_ways_out_and_what_is_left_follow_too() -> None:
    """The star handset does not fit its chip; with a matrix it does."""
    library, design = bundled_library(), Design(brief=demo_brief("star-handset"))
    ways = ways_for(design, library)
    assert faults_in(way.working for way in ways) == []
    assert all(way.cost >= way.price_cents >= 0 for way in ways)
    plan = report_pins(Design(brief=demo_brief("dusk-remote")), library).plan
    assert plan is not None
    left = budget_workings(plan)
    assert faults_in(left) == []
    by_kind = {row.kind: row for row in plan.budget}
    assert {w.id: w.value for w in left} == {f"pins.left.{k}": r.left for k, r in by_kind.items()}


def test_quotes_and_proofs_follow_too(released: Release) -> None:
    assert released.proof is not None
    shown = proof_workings(proof_figures(released.proof) or {}, len(released.files))
    assert faults_in(shown) == []
    assert [w.value for w in shown] == [
        *(released.proof.nets, released.proof.pads, released.proof.gaps),
        *(released.proof.holes, released.proof.keys),
    ]
    for house in bundled_library().houses.values():
        seen = inspect(released.files, house)
        asked = (house.finishes[0], house.colours[0], house.thickness_um[0], house.shipping[0].name)
        for quantity in (1, 7, 40):
            got = quote(house, seen, quantity, *asked, date(2026, 11, 25))
            figures = [
                *line_figures(got, house),
                total_figure(got.lines, got.total_cents, house.name),
                each_figure(got, house.name),
                ordered_figure(got.plain(), house.name),
            ]
            assert faults_in(figures) == []
            assert [f.value for f in figures[-3:]] == [
                *(got.total_cents, got.each_cents, got.total_cents),
            ]
