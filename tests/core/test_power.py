"""What a device draws: Ohm's law and the data given, by hand."""

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.power.load import draws_of, load_working
from loquet.demo.scenario import demo_brief
from tests.making import thing, varied


def drawn(brief: Brief) -> dict[str, float]:
    library = bundled_library()
    return {d.name: d.current_ma for d in draws_of(brief, library.parts, library.screens)}


def test_the_current_of_a_small_device_is_what_its_parts_draw_and_not_what_its_switch_could_carry() -> (
    None
):
    """The buzzer's coil is 42 ohms on two cells of 1.5 V; 12 mA for the screen and 2 mA for the lamp are given; 6.5 mA for an L0 at 32 MHz is from memory of its data sheet."""
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
