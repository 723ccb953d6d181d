"""What pins do in reset and in sleep, by family (reference manuals, from memory), and words that a
person puts on the legend.
"""

from typing import Any

import pytest

from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.design import Choices, Design
from loquet.core.legend import legend_of
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.pins import Assignment
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.release import release
from tests.core.benches import any_plan
from tests.making import device, thing


def said(
    rule: str, library: Library, brief: Brief, ports: dict[str, str] | None = None
) -> list[str]:
    """The sentences of a rule about a brief whose signals lie on these ports."""
    chip = chip_for(brief, library)
    rows = tuple(
        Assignment(
            signal=s,
            kind="output",
            title=s,
            net="X",
            pin=next(p.number for p in chip.pins if port in p.ports),
            port=port,
        )
        for s, port in (ports or {}).items()
    )
    plan = any_plan(brief, (), chip.name, chip.package).model_copy(update={"assignments": rows})
    one = next(r for r in RULES if r.id == rule)
    seen = Subject(brief, Choices(), library.house("millrace"), library, chip=chip, plan=plan)
    return [f.sentence for f in findings_of([(one, one.run(seen))])]


def with_chip(part: str, *more: Any) -> Brief:
    return device(thing("chip", "chip", part=part), thing("leads", "leads"), *more)


@pytest.mark.parametrize("port", ["PC13", "PC14", "PC15"])
def test_a_light_on_a_weak_pin(library: Library, port: str) -> None:
    brief = with_chip("stm32l433rct6", thing("light", "light"), thing("button", "key"))
    assert len(said("weak-pins", library, brief, {"light": port})) == 1
    assert said("weak-pins", library, brief, {"light": "PA0"}) == []
    assert said("weak-pins", library, brief, {"button:key": port}) == []
    assert f"({port}), which gives 3 mA" in said("weak-pins", library, brief, {"light": port})[0]


@pytest.mark.parametrize(
    ("part", "wakes"),
    [
        ("stm32l051c8t6", False),
        ("stm32f072rbt6", False),
        ("stm32l433rct6", True),
        ("stm32g071c8t6", True),
    ],
)
def test_a_button_to_ground_on_a_chip_that_wakes_on_a_rising_edge(
    library: Library, part: str, wakes: bool
) -> None:
    brief = with_chip(part, thing("button", "on", duty="power"))
    assert bool(said("wake-edge", library, brief)) != wakes
    assert said("wake-edge", library, with_chip(part, thing("button", "on"))) == []


def test_pins_that_come_out_of_reset_as_a_debug_port(library: Library) -> None:
    brief = with_chip("stm32f103c8t6", thing("light", "light"))
    for port, words in (("PB3", "JTDO, driven"), ("PB4", "NJTRST"), ("PA15", "JTDI")):
        (sentence,) = said("jtag-pins", library, brief, {"light": port})
        assert words in sentence
    assert said("jtag-pins", library, brief, {"light": "PB5"}) == []
    assert (
        said(
            "jtag-pins",
            library,
            with_chip("stm32f072rbt6", thing("light", "light")),
            {"light": "PB3"},
        )
        == []
    )


def test_words_stand_on_the_legend_where_they_were_put(library: Library) -> None:
    """Letters of 2 mm about their place, on the side where they were put; what does not fit is
    reported and nothing is printed of it.
    """

    def made(**place: Any) -> Design:
        words = thing("words", "words", 60, 50, text="LARKFIELD", high_mm=2.0, **place)
        brief = with_chip("stm32l433rct6", words)
        return bring_up_to_date(Design(brief=brief), library, "placement")

    def strokes(design: Design, side: str) -> list[tuple[float, float]]:
        legend = legend_of(board_view(design, library))
        return [
            (b.x1 / 1e6, b.y1 / 1e6)
            for b in legend.strokes[side]
            if 48.9 <= b.y1 / 1e6 <= 51.1 and 50 < b.x1 / 1e6 < 70
        ]

    near = strokes(made(), "near")
    assert len(near) > 20
    assert {round(y) for _, y in near} == {49, 50, 51}
    assert sum(x for x, _ in near) / len(near) == pytest.approx(60, abs=1.5)
    assert len(strokes(made(far=True), "far")) > 20
    decided = thing("programming", "port")
    wide = with_chip(
        "stm32l433rct6", decided, thing("words", "words", 60, 50, text="W" * 40, high_mm=10.0)
    )
    design = bring_up_to_date(Design(brief=wide), library)
    found = [
        (f.severity, f.sentence)
        for f in release(design, library).findings
        if f.rule == "legend-room"
    ]
    assert ("look", f"There is no room on the legend of main for: {'W' * 40}.") in found
