"""Every figure worked out again from what it shows: all symbols of a formula are inputs, every
input says where it is from, and the value follows.

How they are worked out stands in `tests.recomputing`.
"""

from collections.abc import Iterator
from datetime import date

import pytest

from loquet.api.describing import all_findings, tally
from loquet.api.ordering import soldering_days
from loquet.catalogue.library import bundled_library
from loquet.compiling import proof_figures
from loquet.core.brief import Brief
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.build.expected import first_power
from loquet.core.buying.kit import kit_of
from loquet.core.circuit.assembling import assemble
from loquet.core.design import SLICES, Design
from loquet.core.lookup.powering import power_of
from loquet.core.ordering.house import Asked
from loquet.core.ordering.landed import Bought, Wanted, landed
from loquet.core.pins.planning import budget_workings
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.planning.pinning import report_pins, schemes_of, sums, ways_for
from loquet.core.proof.figures import proof_workings
from loquet.core.provenance import Working
from loquet.core.release import Release
from loquet.core.stack.report import stack_report
from loquet.demo.scenario import BOARD_BRIEFS, DEMO_BRIEFS, FEED_BRIEFS, demo_brief
from loquet.standins.board_house import quote
from loquet.standins.file_inspection import inspect
from loquet.standins.quote_figures import each_figure, line_figures, ordered_figure, total_figure
from tests.core.benches import bench_for, switched_on
from tests.making import device, thing
from tests.recomputing import faults_in


def workings_of(brief: Brief, upto: str) -> Iterator[Working]:
    library = bundled_library()
    design = Design(brief=brief)
    if upto:
        design = bring_up_to_date(design, library, upto)  # type: ignore[arg-type]
    yield from tally(design, library)
    yield from sums(brief, library)
    yield from power_of(brief, library).workings
    yield from kit_of(design, library).workings
    for card in schemes_of(design, library):
        yield from card.workings
    for name in SLICES:
        for made in getattr(design, name).values():
            yield from getattr(made.value, "workings", ())
    for finding in all_findings(design, library):
        if finding.working:
            yield finding.working


UPTO = {**dict.fromkeys(BOARD_BRIEFS, "pour"), **dict.fromkeys(FEED_BRIEFS, "circuit")}
CASES = [(name, UPTO.get(name, "")) for name in DEMO_BRIEFS]


def later_workings(brief: Brief) -> Iterator[Working]:
    """Those of the stack, of the first power and of the cost at the door."""
    library = bundled_library()
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    views = tuple(board_view(design, library, board.name) for board in brief.boards)
    for view in views:
        for choices in (StackChoices(), StackChoices(fixing="through", process="laser")):
            report = stack_report(view, library, choices, 1.6)
            yield from report.workings
            yield from (row.working for row in (*report.screws, *report.openings))
    power = first_power(switched_on(design, library), [])
    yield from (power.limit, power.idle)
    yield soldering_days(design, brief.quantity)
    for house in library.houses.values():
        for fitting in ("hand", "house"):
            wanted = Wanted(stencil="framed", fitting=fitting)  # type: ignore[arg-type]
            yield from landed(
                house, wanted, 7, 2345, 950, Bought(parts_cents=4321, shipping_cents=690), 33
            ).workings


@pytest.mark.parametrize("name", ["dusk-remote", "star-handset", "chart-console", "twin-grips"])
def test_figures_of_the_last_stations_follow_from_their_inputs(name: str) -> None:
    assert faults_in(later_workings(demo_brief(name))) == []


@pytest.mark.parametrize(("name", "upto"), CASES)
def test_every_figure_follows_from_its_inputs(name: str, upto: str) -> None:
    assert faults_in(workings_of(demo_brief(name), upto)) == []


def test_ways_out_and_what_is_left_follow_too() -> None:
    """The ridge handset does not fit its chip; with a matrix it does."""
    library, design = bundled_library(), Design(brief=demo_brief("ridge-handset"))
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
        asked = Asked(
            finish=house.finishes[0],
            colour=house.colours[0],
            thickness_um=house.thickness_um[0],
            copper_um=house.copper_um[-1],
            shipping=house.shipping[0].name,
        )
        for quantity in (1, 7, 40):
            got = quote(house, seen, quantity, asked, date(2026, 11, 25))
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


def test_figures_of_speakers_crystals_and_packs_follow_too() -> None:
    library = bundled_library()
    things = (
        *(thing("chip", "chip", part="stm32l433rct6"), thing("series-pack", "pack")),
        *(thing("speaker", "voice", 30, 30), thing("crystal", "quartz")),
        *(thing("light-matrix", "field", 90, 30), thing("bus-sensor", "warmth", 60, 30)),
    )
    brief = device(*things)
    made = assemble(bench_for(brief)).workings
    assert {w.id for w in made} >= {"voice.corner", "quartz.load", "field.column", "pack.feedback"}
    assert faults_in([*made, *power_of(brief, library).workings]) == []
