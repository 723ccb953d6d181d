"""Every figure worked out again from what it shows: all symbols of a formula are inputs, every input says where it is from, and the value follows.

How they are worked out stands in `tests.recomputing`.
"""

from collections.abc import Iterator
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
from loquet.core.release import Release
from loquet.demo.scenario import BOARD_BRIEFS, DEMO_BRIEFS, demo_brief
from loquet.standins.board_house import inspect, quote
from loquet.standins.quote_figures import each_figure, line_figures, ordered_figure, total_figure
from tests.recomputing import faults_in


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
