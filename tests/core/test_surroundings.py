"""The application circuit of a part as data: values and formulas by hand, the same recipes with
what a part's drawing asks for, and the volts that its terminals stand.
"""

from typing import Any

import pytest
from pydantic import ValidationError

from loquet.compiling import own_packs
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.circuit import Circuit, RecipeNotPossible
from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.parts import Part
from loquet.core.parts.surroundings import Around, NoValue, value_of
from loquet.core.pipeline import bring_up_to_date
from loquet.core.shelf.faults import faults_of
from tests.conftest import ROOT
from tests.core.test_shelf_parts import FIRST, HUB, begun, circuit_of, joined
from tests.making import device, thing

(REGULATOR,) = own_packs([ROOT / "examples" / "packs" / "tarn-regulator.toml"]).part


def row(value: str, kind: str = "resistor", **ends: str) -> Around:
    return Around.model_validate(
        {"kind": kind, "value": value, "one": "in", "why": "as its drawing asks", **ends}
    )


def changed(part: Part, **fields: Any) -> Part:
    return Part.model_validate({**part.model_dump(mode="json"), **fields})


def plain(*rows: Around) -> list[Any]:
    return [one.model_dump(mode="json") for one in rows]


@pytest.mark.parametrize(
    ("given", "kind", "shown", "exact"),
    [
        ("4.7 kΩ", "resistor", "4.7 kΩ", 4700.0),
        ("1 µF", "capacitor", "1 µF", 1e-6),
        # (3.3 / 0.6 - 1) x 22 kΩ = 99 kΩ; of E24 100 kΩ is nearer than 91 kΩ
        ("= (rail_v / reference_v - 1) * 22000", "resistor", "100 kΩ", 99_000.0),
        # 1 / (2 pi x 10 kΩ x 1 kHz) = 15.9 nF; of E12 15 nF is nearer than 18 nF
        ("= 1 / (6.283185 * 10000 * 1000)", "capacitor", "15 nF", 15.915e-9),
    ],
)
def test_values_are_read_or_worked_out(given: str, kind: str, shown: str, exact: float) -> None:
    found = value_of(row(given, kind), {"rail_v": 3.3, "reference_v": 0.6, "current_ma": 9})
    assert (found.shown, found.exact) == (shown, pytest.approx(exact, rel=1e-4))
    assert found.inputs == ({"rail_v": 3.3, "reference_v": 0.6} if "rail_v" in given else {})


@pytest.mark.parametrize(
    "given",
    [
        *("4.7 kF", "lots", "0 Ω", "-1 kΩ", "= nothing", "= 1 / 0", "= 2 -", "= 2; 3"),
        *("= 9 ** 9 ** 9", "= __import__('os')", "= 'a' * 5", "= 0", "= -rail_v", "= [1] * 9"),
        *("= 1e300 * 1e300", "= (lambda: 1)()", "= rail_v.__class__"),
    ],
)
def test_what_gives_no_value_is_refused(given: str) -> None:
    with pytest.raises(NoValue):
        value_of(row(given), {"rail_v": 3.3})


def regulated(part: Part, library: Library) -> Circuit:
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"), thing("nine-volt", "block", converter="linear")
    )
    design = Design(brief=brief, choices=Choices(shelf={part.id: part}))
    known = project_library(design, library)
    (made,) = bring_up_to_date(design, known, "circuit").circuit.values()
    return made.value


def test_a_regulators_capacitors_get_the_values_of_its_drawing(library: Library) -> None:
    asked = (
        row("2.2 µF", "capacitor", one="in"),
        row("1 µF", "capacitor", one="out"),
        row("= 1000 * rail_v / 3.3", one="out"),
    )
    before = regulated(REGULATOR, library)
    made = regulated(changed(REGULATOR, around=plain(*asked)), library)
    by_role = {c.role: c for c in made.components}
    assert by_role["block converter input"].value == "2.2 µF"
    assert by_role["block converter output"].value == "1 µF"
    assert by_role["block converter input"].pads == next(
        c.pads for c in before.components if c.role == "block converter input"
    )
    bleeder = by_role["block converter around 3"]
    assert (bleeder.value, set(bleeder.pads.values())) == ("1 kΩ", {"SUPPLY", "GROUND"})
    assert (bleeder.near_role, bleeder.near_pad, bleeder.thing) == ("block converter", "1", "block")
    (working,) = (w for w in made.workings if w.id == "around.block converter around 3")
    assert bleeder.working == working.id
    assert [i.name for i in working.inputs] == ["rail_v"]
    assert len(made.components) == len(before.components) + 1


def test_a_joined_part_brings_what_it_wants(library: Library) -> None:
    asked = (
        row("1 µF", "capacitor", one="supply"),
        row("15 kΩ", one="port 1 plus"),
        row("1 kΩ", one="upstream plus", other="supply"),
        row("1 kΩ", one="port 2 plus"),  # left open, so nothing lies there
    )
    hub = changed(HUB, around=plain(*asked))
    made = circuit_of(begun(joined("one", 35, FIRST), parts=(hub,)), library)
    by_role = {c.role: (c.value, set(c.pads.values())) for c in made.components}
    assert by_role["part:one supply decoupling"] == ("1 µF", {"SUPPLY", "GROUND"})
    assert by_role["part:one around 2"] == ("15 kΩ", {"JOIN_ONE_PLUS", "GROUND"})
    assert by_role["part:one around 3"] == ("1 kΩ", {"JOIN_UP_PLUS", "SUPPLY"})
    assert "part:one around 4" not in by_role
    assert "part:one around 1" not in by_role


def test_a_formula_over_a_figure_that_is_gone_stops_the_circuit(library: Library) -> None:
    part = changed(REGULATOR, around=plain(row("= 3 * lost_v", one="out")))
    with pytest.raises(RecipeNotPossible, match="lost_v"):
        regulated(part, library)


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        ([row("1 kΩ", one="nowhere")], "lies at 'nowhere'"),
        ([row("1 kΩ", one="in", other="in")], "between in and itself"),
        ([row("1 kg", one="in")], "no value in Ω"),
        ([row("= gain * 2", one="in")], "cannot be worked out"),
        ([row("1 kΩ"), row("= 2 * rail_v", one="out", other="in")], ""),
    ],
)
def test_odd_surroundings_are_said_while_they_are_typed(rows: list[Around], words: str) -> None:
    found = [f.problem for f in faults_of(changed(REGULATOR, around=plain(*rows)))]
    assert bool(found) is bool(words)
    assert not words or any(words in problem for problem in found)


@pytest.mark.parametrize(("most", "stops"), [(3.3, 0), (3.2, 1), (None, 0)])
def test_no_terminal_gets_more_than_it_stands(
    most: float | None, stops: int, library: Library
) -> None:
    terminals = HUB.model_dump(mode="json")["terminals"]
    terminals["supply"] |= {"most_v": most}
    hub = changed(HUB, terminals=terminals)
    design = begun(joined("one", 35, FIRST), parts=(hub,))
    known = project_library(design, library)
    rule = next(r for r in RULES if r.id == "terminal-volts")
    seen = Subject(
        design.brief,
        design.choices,
        known.house("millrace"),
        known,
        circuit=circuit_of(design, library),
    )
    found = findings_of([(rule, rule.run(seen))])
    assert [f.severity for f in found] == ["stop"] * stops
    assert all("stands 3.2 V, and SUPPLY may come to 3.3" in f.sentence for f in found)


@pytest.mark.parametrize(
    ("field", "most"), [("value", 120), ("why", 120), ("one", 40), ("other", 40)]
)
def test_words_of_a_small_part_are_short(field: str, most: int) -> None:
    least = {"kind": "resistor", "value": "1 kΩ", "one": "in", "why": "as asked"}
    Around.model_validate({**least, field: "x" * most})
    with pytest.raises(ValidationError):
        Around.model_validate({**least, field: "x" * (most + 1)})
