"""What a device draws: Ohm's law and the data given, by hand."""

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.power.load import draws_of, load_working
from loquet.demo.scenario import demo_brief
from tests.making import device, thing, varied


def drawn(brief: Brief) -> dict[str, float]:
    library = bundled_library()
    return {d.name: d.current_ma for d in draws_of(brief, library.parts, library.screens)}


def test_a_small_device_draws_what_its_parts_draw_and_not_what_its_switch_could_carry() -> None:
    """The buzzer's coil is 42 ohms on two cells of 1.5 V; 12 mA for the screen and 2 mA for the
    lamp are given; 6.5 mA for an L0 at 32 MHz is from memory of its data sheet.
    """
    brief = demo_brief("dusk-remote")
    assert drawn(brief) == pytest.approx(
        {"chip": 6.5, "screen": 12, "buzzer": 3.0 / 42 * 1000, "light": 2}
    )
    library = bundled_library()
    assert load_working(brief, library.parts, library.screens).value == pytest.approx(91.9, abs=0.1)


def test_a_chain_of_lights_counts_every_light() -> None:
    """60 mA a light at full white; from memory of such lights."""
    brief = demo_brief("dusk-remote")
    longer = varied(brief, plus=(thing("light-chain", "glow", count=12),))
    assert drawn(longer)["glow"] == 720.0


@pytest.mark.parametrize(
    ("kind", "current"),
    [
        # drawings of the invented parts, the card by the SD specification (default speed, 100 mA),
        # a row of lights 20 mA
        *(("speaker", 150), ("headphones", 5), ("sound-converter", 12), ("memory-card", 100)),
        *(("bus-sensor", 0.3), ("motion", 1), ("gauge", 0.05), ("voltage-sensor", 0.1)),
        *(("trigger", 3), ("light-matrix", 20), ("usb-downstream", 100), ("light", 2)),
        *(("button", None), ("slider", None), ("serial", None), ("test-point", None)),
    ],
)
def test_what_each_kind_draws_is_in_the_sum(kind: str, current: float | None) -> None:
    """A speaker with its amplifier was left out of the sum once, and so was every sensor that has
    no part of its own to choose.
    """
    brief = device(thing("chip", "chip"), thing("leads", "leads"), thing(kind, "it"))
    assert drawn(brief).get("it") == (None if current is None else pytest.approx(current))
