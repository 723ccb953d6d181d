"""A ready module with a USB socket of its own, as port and as source: from brief to bench."""

from dataclasses import replace
from typing import Any

import pytest

from loquet.core.build.faults import GOOD
from loquet.core.build.measuring import Faulty
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.parts.in_use import STAYS
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.release import release
from loquet.core.stack.openings import openings_of
from loquet.core.stack.plugging import plugs_of
from tests.core.benches import bench_for, switched_on
from tests.making import Plain, device, thing
from tests.stacks import PLAIN, WALLS

PORT = thing("module-port", "socket")
STICK = thing("stick", "slew", 60, 20, sensing="resistive", part="stick-resistive-13")


def panel(*things: Plain, **module: Any) -> Any:
    outline = {"kind": "rounded-rectangle", "width_mm": 90, "height_mm": 60}
    return device(
        thing("ready-module", "brain", **module),
        *things,
        STICK,
        boards=[{"name": "main", "outline": outline}],
        role="usb-controller",
    )


@pytest.fixture(scope="module")
def made(library: Library) -> Design:
    return bring_up_to_date(Design(brief=panel(PORT)), library)


def test_its_five_volts_feed_the_module_and_no_part_is_added(
    made: Design, library: Library
) -> None:
    (circuit,) = (kept.value for kept in made.circuit.values())
    (module,) = (c for c in circuit.components if c.is_chip)
    chip = library.find_chip("fellbeck-c20")
    (supply,) = (pin.number for pin in chip.pins if pin.kind == "supply")
    assert module.pads[supply] == "SUPPLY"
    assert not [c for c in circuit.components if c.thing == "socket"]
    desk = switched_on(made, library)
    assert [(m.rail.net, m.rail.usual_v) for m in desk.made] == [
        ("SUPPLY", 5.0),
        ("SUPPLY_BRAIN", 3.3),
    ]


def test_a_healthy_board_has_the_volts_of_the_host_and_of_the_module(
    made: Design, library: Library
) -> None:
    volts = Faulty(switched_on(made, library), GOOD).volts
    assert volts["SUPPLY"] == pytest.approx(5.0, abs=0.2)
    assert volts["SUPPLY_BRAIN"] == pytest.approx(3.3, abs=0.1)


def test_the_module_stands_at_the_edge_and_its_plug_gets_an_opening(
    made: Design, library: Library
) -> None:
    view = board_view(made, library)
    (module,) = (c for c in view.circuit.components if c.is_chip)
    seat, body = view.seats[module.ref], view.patterns[module.ref].body
    x, y = seat.point(body.x, body.y - body.h // 2)
    away = min(x, 90e6 - x, y, 60e6 - y)
    assert away == pytest.approx(0, abs=1e6)
    assert [o.thing for o in openings_of(view, library, WALLS, PLAIN) if "brain" in o.thing] == [
        "brain"
    ]
    assert any(p.ref == module.ref for p in plugs_of(view, library, 1.6))
    result = release(made, library)
    assert result.ready, [f.sentence for f in result.findings if f.severity == "stop"]


def said(brief: Any, library: Library) -> list[tuple[str, str]]:
    rule = next(r for r in RULES if r.id == "module-socket")
    seen = Subject(brief, Choices(), library.house("millrace"), library)
    return [(f.severity, f.sentence) for f in findings_of([(rule, rule.run(seen))])]


@pytest.mark.parametrize(
    ("things", "words"),
    [
        ((PORT,), ""),
        ((thing("host-feed", "host"), thing("module-port", "socket")), "one feeds the other"),
        ((PORT, thing("module-port", "second")), "has two sockets, socket and second"),
        (
            (
                PORT,
                thing("chip", "chip", part="stm32l433rct6"),
                thing("module-port", "b", brain="chip"),
            ),
            "on chip, which is no ready module",
        ),
    ],
)
def test_one_source_at_the_supply_pin(
    things: tuple[Plain, ...], words: str, library: Library
) -> None:
    found = said(panel(*things), library)
    assert [severity for severity, _ in found] == ["stop"] * bool(words)
    assert all(words in sentence for _, sentence in found)


def test_a_module_that_names_the_rail_of_its_socket_is_fed_once(library: Library) -> None:
    both = panel(thing("host-feed", "host"), PORT, rail="socket")
    assert said(both, library) == []


def test_a_drawing_without_a_socket_is_a_look(library: Library) -> None:
    bare = library.parts["CASTELLATED20"].model_copy(update={"in_use": STAYS})
    parts = library.parts | {bare.id: bare}
    ((severity, sentence),) = said(panel(PORT), replace(library, parts=parts))
    assert (severity, "was not looked at" in sentence) == ("look", True)


def test_a_report_over_the_modules_socket_is_a_report(library: Library) -> None:
    rule = next(r for r in RULES if r.id == "usb-role")

    def found(brief: Any) -> int:
        seen = Subject(brief, Choices(), library.house("millrace"), library)
        return len(findings_of([(rule, rule.run(seen))]))

    assert found(panel(PORT)) == 0
    assert found(panel(thing("host-feed", "host"))) == 1


def test_other_things_take_the_five_volts(library: Library) -> None:
    chain = thing("light-chain", "ring", 30, 30, count=2, rail="socket")
    components = bench_for(panel(PORT, chain))
    assert components.rail(components.brief.thing("ring")).net == "SUPPLY"
