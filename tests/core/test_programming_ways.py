"""How a chip gets its program: over two lines, over four, or apart; never in silence."""

import pytest

from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Outcome
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from loquet.core.provenance import Failed, Passed
from tests.core.benches import seen_with
from tests.making import Plain, device, thing

LEADS = thing("leads", "leads", volts=3.3)
UNDECIDED = {"programmed": "on the board"}


def programmable(chip: str, *more: Plain, **decided: str) -> Outcome:
    brief = device(thing("chip", "chip", part=chip, **(decided or UNDECIDED)), LEADS, *more)
    return next(r for r in RULES if r.id == "programmable").run(seen_with(brief))


@pytest.mark.parametrize("header", ["header-6-way", "clip-pads-6"])
def test_four_lines_reach_the_pins_of_the_data_sheet(header: str, library: Library) -> None:
    """ATmega328, serial downloading: data in PB3, data out PB4, clock PB5, with reset; from memory
    of its data sheet.
    """
    port = thing("programming", "port", 60, 50, part=header)
    design = Design(brief=device(thing("chip", "chip", part="atmega328-au"), LEADS, port))
    design = run_stage(run_stage(design, "pins", library), "circuit", library)
    plan = {a.net: a.port for made in design.pins.values() for a in made.value.assignments}
    assert (plan["DEBUG_IN"], plan["DEBUG_OUT"], plan["DEBUG_CLOCK"]) == ("PB3", "PB4", "PB5")
    circuit = slice_of(design.circuit)
    (plug,) = (c for c in circuit.components if c.part == header)
    assert set(plug.pads.values()) >= {"DEBUG_IN", "DEBUG_OUT", "DEBUG_CLOCK", "RESET", "GROUND"}
    assert len(plug.pads) == 6


def test_a_chip_without_a_way_to_its_program_is_a_stop() -> None:
    """Two repairs: a port that suits it, or the decision that it comes programmed."""
    for chip, part in (("stm32l433rct6", "header-5-way"), ("atmega328-au", "header-6-way")):
        failed = programmable(chip)
        assert isinstance(failed, Failed)
        assert failed.findings[0].severity == "stop"
        edits = [r.edit for r in failed.findings[0].repairs]
        assert any(e.get("thing", {}).get("part") == part for e in edits), edits
        port = thing("programming", "port", 60, 50, part=part)
        assert isinstance(programmable(chip, port), Passed)
        apart = programmable(chip, programmed="before it is soldered")
        assert isinstance(apart, Failed)
        assert [f.severity for f in apart.findings] == ["note"]


def test_a_header_of_too_few_ways_is_a_stop() -> None:
    port = thing("programming", "port", 60, 50, part="header-5-way")
    with pytest.raises(RecipeNotPossible, match="loaded over 6 ways, and header-5-way has 5"):
        programmable("atmega328-au", port)
