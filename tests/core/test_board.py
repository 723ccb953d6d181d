"""Placing, routing, pouring and the rules, on the demo boards."""

import pkgutil

import pytest

from loquet.core.board import Track
from loquet.core.checks import rules as rule_folder
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Rule, Subject, subjects_for
from loquet.core.design import Choices, Design, PartSeat, slice_of
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date, run_stage
from loquet.core.placement.seating import NoRoom
from loquet.core.provenance import Failed, Undetermined
from loquet.core.reviewing import review, subject_of
from loquet.core.routing import RouteInput, RouteProgress, RoutingStopped, route
from loquet.demo.scenario import BOARD_BRIEFS, demo_brief
from tests.making import as_made, device, thing, varied


def rule(name: str) -> Rule:
    return next(r for r in RULES if r.id == name)


def outcome(name: str, subject: Subject) -> object:
    return rule(name).run(subject)


@pytest.mark.parametrize("name", BOARD_BRIEFS)
def test_every_example_ends_without_a_stop(name: str, library: Library) -> None:
    design = bring_up_to_date(Design(brief=demo_brief(name)), library)
    assert [f.sentence for f in review(design, library) if f.severity == "stop"] == []
    assert slice_of(design.routing).open_links == ()
    assert slice_of(design.pour).islands == 1


def test_a_full_board_says_that_there_is_no_room(library: Library, finished: Design) -> None:
    keys = tuple(
        thing("button", f"key {i}", 6.5 + 11.2 * (i % 5), 5.5 + 6.6 * (i // 5)) for i in range(30)
    )
    outline = {"kind": "rounded-rectangle", "width_mm": 64, "height_mm": 44, "corner_mm": 4}
    brief = varied(
        finished.brief,
        only=("chip", "cell", "switch", "port"),
        plus=keys,
        boards=[{"name": "main", "outline": outline}],
    )
    crowded = Design(brief=brief)
    with pytest.raises(NoRoom, match="No free place is left"):
        bring_up_to_date(crowded, library, until="placement")


def test_routing_can_be_stopped(finished: Design, library: Library) -> None:
    view = board_view(finished, library)
    seen: list[RouteProgress] = []

    def after_five(progress: RouteProgress) -> bool:
        seen.append(progress)
        return len(seen) < 5

    with pytest.raises(RoutingStopped):
        route(
            RouteInput(view.outline, view.outline, view.circuit, view.pads, view.holes, view.rules),
            after_five,
        )
    assert len(seen) == 5


def test_what_cannot_be_joined_is_said(finished: Design, library: Library) -> None:
    view = board_view(finished, library)
    cage = tuple(p for p in view.pads if p.owner != "S1 pad 1")
    blocked = tuple(
        p.__class__(
            **{**{f: getattr(p, f) for f in p.__dataclass_fields__}, "net": "", "ref": f"X{i}"}
        )
        for i, p in enumerate(view.pads)
        if p.owner == "S1 pad 1"
    )
    lonely = next(p for p in view.pads if p.owner == "S1 pad 1")
    made = route(
        RouteInput(
            view.outline,
            view.outline,
            view.circuit,
            (*cage, lonely, *blocked),
            view.holes,
            view.rules,
        )
    )
    assert any(net == lonely.net for net, _, _ in made.open_links)


def test_choices_survive_running_a_stage_again(finished: Design, library: Library) -> None:
    seat = PartSeat(role="buzzer", x_mm=26.0, y_mm=19.0, turn_deg=0)
    chosen = finished.model_copy(update={"choices": Choices(part_seats={"buzzer": seat})})
    assert stale_slices(chosen) == ("placement", "routing", "pour")
    made = bring_up_to_date(chosen, library)
    placed = next(p for p in slice_of(made.placement).parts if p.role == "buzzer")
    assert (placed.x_nm, placed.y_nm, placed.locked) == (26_000_000, 19_000_000, True)
    assert made.choices == chosen.choices
    assert stale_slices(made) == ()


def test_an_upstream_change_marks_everything_after_it(finished: Design) -> None:
    changed = finished.model_copy(
        update={"brief": varied(finished.brief, button_reading="pull-down-resistors")}
    )
    assert stale_slices(changed) == ("pins", "circuit", "placement", "routing", "pour")
    assert (
        stale_slices(finished.model_copy(update={"brief": varied(finished.brief, quantity=99)}))
        == ()
    )


def test_the_catalogue_names_every_rule_of_the_folder() -> None:
    files = {m.name for m in pkgutil.iter_modules(rule_folder.__path__)}
    assert files == {r.run.__module__.rsplit(".", 1)[1] for r in RULES}
    assert len({r.id for r in RULES}) == len(RULES)
    assert all(r.why and r.source.text for r in RULES)


def with_view(finished: Design, library: Library, **slices: object) -> Subject:
    from dataclasses import replace

    design = finished
    for name, value in slices.items():
        subject, made = next(iter(getattr(finished, name).items()))
        changed = made.model_copy(update={"value": value})
        design = design.with_made(name, subject, changed)  # type: ignore[arg-type]

    return replace(subject_of(finished, library), view=board_view(design, library))


def test_a_track_across_a_pad_is_a_gap_fault(finished: Design, library: Library) -> None:
    routing = slice_of(finished.routing)
    stray = Track(
        net="RESET",
        far=False,
        x1_nm=5_000_000,
        y1_nm=24_000_000,
        x2_nm=6_000_000,
        y2_nm=24_000_000,
        width_nm=200_000,
    )
    found = outcome(
        "copper-gap",
        with_view(
            finished,
            library,
            routing=routing.model_copy(update={"tracks": (*routing.tracks, stray)}),
        ),
    )
    assert isinstance(found, Failed)
    assert any("BUTTON_BRIGHTER" in f.sentence and "RESET" in f.sentence for f in found.findings)


def test_a_track_at_the_edge_and_a_thin_one_are_found(finished: Design, library: Library) -> None:
    routing = slice_of(finished.routing)
    stray = Track(
        net="RESET",
        far=True,
        x1_nm=20_000_000,
        y1_nm=150_000,
        x2_nm=25_000_000,
        y2_nm=150_000,
        width_nm=100_000,
    )
    subject = with_view(
        finished, library, routing=routing.model_copy(update={"tracks": (*routing.tracks, stray)})
    )
    assert isinstance(outcome("copper-edge", subject), Failed)
    assert isinstance(outcome("house-limits", subject), Failed)


def test_open_links_and_islands_are_stops(finished: Design, library: Library) -> None:
    routing, pour = slice_of(finished.routing), slice_of(finished.pour)
    left = tuple(t for t in routing.tracks if t.net != "RESET")
    cut = routing.model_copy(update={"tracks": left})
    found = outcome("unrouted", with_view(finished, library, routing=cut))
    assert isinstance(found, Failed)
    assert {f.about for f in found.findings} == {("net:RESET",)}
    assert "RESET is not joined between" in found.findings[0].sentence
    assert isinstance(
        outcome(
            "ground-island",
            with_view(finished, library, pour=pour.model_copy(update={"islands": 2})),
        ),
        Failed,
    )


def test_parts_on_each_other_are_found(finished: Design, library: Library) -> None:
    placement = slice_of(finished.placement)
    first, second = placement.parts[1], placement.parts[2]
    onto = second.model_copy(update={"x_nm": first.x_nm + 500_000, "y_nm": first.y_nm})
    subject = with_view(
        finished,
        library,
        placement=placement.model_copy(
            update={"parts": (placement.parts[0], first, onto, *placement.parts[3:])}
        ),
    )
    found = outcome("courtyards", subject)
    assert isinstance(found, Failed)
    assert f"part:{first.ref}" in found.findings[0].about


def test_unknown_supply_limits_are_not_a_pass(finished: Design, library: Library) -> None:
    from dataclasses import replace

    rule = next(r for r in RULES if r.id == "supply-range")
    (subject,) = subjects_for(rule, subject_of(finished, library))
    assert subject.chip is not None
    unknown = replace(subject, chip=subject.chip.model_copy(update={"supply_min_mv": None}))
    assert isinstance(outcome("supply-range", unknown), Undetermined)
    low = replace(subject, chip=subject.chip.model_copy(update={"supply_max_mv": 3000}))
    assert isinstance(outcome("supply-range", low), Failed)


def test_a_rail_without_a_source_is_found(finished: Design, library: Library) -> None:
    from dataclasses import replace

    subject = subject_of(finished, library)
    assert subject.circuit is not None
    dead = tuple(c for c in subject.circuit.components if c.role != "switch")
    found = outcome(
        "rail-source",
        replace(subject, circuit=subject.circuit.model_copy(update={"components": dead})),
    )
    assert isinstance(found, Failed)
    assert "SUPPLY" in found.findings[0].sentence


def test_a_pad_that_the_pattern_lacks_is_found(finished: Design, library: Library) -> None:
    circuit = slice_of(finished.circuit)
    odd = circuit.components[1].model_copy(
        update={"pads": {**circuit.components[1].pads, "9": "GROUND"}}
    )
    subject = with_view(
        finished,
        library,
        circuit=circuit.model_copy(
            update={"components": (circuit.components[0], odd, *circuit.components[2:])}
        ),
    )
    assert isinstance(outcome("pad-agreement", subject), Failed)


def test_a_choice_that_the_house_does_not_offer_is_a_stop(
    finished: Design, library: Library
) -> None:
    from dataclasses import replace

    subject = replace(
        subject_of(finished, library),
        brief=as_made(finished.brief, finish="silver", colour="plum", thickness_mm=0.9),
        choices=Choices(shipping="pigeon"),
    )
    found = outcome("house-offer", subject)
    assert isinstance(found, Failed)
    assert len(found.findings) == 4


def test_a_finer_house_routes_too(finished: Design, library: Library) -> None:
    changed = finished.model_copy(
        update={
            "brief": as_made(finished.brief, finish="gold", colour="blue"),
            "choices": Choices(house="saltmarsh", shipping="courier"),
        }
    )
    assert stale_slices(changed) == ("routing", "pour")
    made = run_stage(run_stage(changed, "routing", library), "pour", library)
    assert [f.sentence for f in review(made, library) if f.severity == "stop"] == []


@pytest.mark.parametrize(
    ("points", "said"),
    [
        # Millrace makes 10 x 10 to 400 x 300 mm; an outline need not begin at the corner of its
        # drawing
        (
            ((20, 10), (430, 10), (430, 210), (20, 210)),
            "The board is 410.00 x 200.00 mm, outside what Millrace Boards makes.",
        ),
        (
            ((0, 0), (305, 0), (305, 305), (0, 305)),
            "The board is 305.00 x 305.00 mm, outside what Millrace Boards makes.",
        ),
        (((20, 10), (415, 10), (415, 305), (20, 305)), ""),
    ],
)
def test_a_board_that_is_too_large_for_its_house(
    points: tuple[tuple[float, float], ...], said: str, library: Library
) -> None:
    boards = [{"name": "main", "outline": {"kind": "polygon", "points_mm": points}}]
    brief = device(thing("chip", "chip", 100, 100), thing("leads", "leads", 60, 60), boards=boards)
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    found = [f.sentence for f in review(design, library) if f.rule == "house-limits"]
    assert [f for f in found if "outside what" in f] == ([said] if said else [])
