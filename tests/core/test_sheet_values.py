"""Diodes and transistors as their data sheets give them: so many volts at so many amperes, an open
channel of so many ohm. By the diode equation and the square law, at 300 K.
"""

from math import exp

import pytest

from loquet.core.checks.switched_on import switched_on
from loquet.core.energising.elements import Bipolar, Channel, Junction
from loquet.core.energising.energised import Energised
from tests.core.benches import seen_with
from tests.making import device, thing

VT = 0.025852
CHIP = thing("chip", "chip", part="stm32l433rct6")
SEEN = device(
    CHIP,
    thing("lithium-cell", "cell", 60, 30, far=True, holder=True),
    thing("usb-device", "usb"),
    thing("light", "lamp", 20, 20),
    thing("buzzer", "horn"),
)


@pytest.fixture(scope="module")
def whole() -> Energised:
    return switched_on(seen_with(SEEN))


def at(saturation: float, volts: float, ideality: float = 1.0) -> float:
    """Shockley's law, in A."""
    return saturation * (exp(volts / (ideality * VT)) - 1)


def of_role(whole: Energised, role: str) -> tuple[str, list[object]]:
    (ref,) = (c.ref for c in whole.device.circuit.components if c.role == role)
    net = whole.answers.made.network
    return ref, [e for e in net.elements() if getattr(e, "ref", "") == ref]


def test_a_transistor_has_its_base_volts_at_ten_milliamperes(whole: Energised) -> None:
    ref, elements = of_role(whole, "buzzer:horn transistor")
    (base,) = (e for e in elements if isinstance(e, Bipolar))
    part = whole.device.parts[whole.device.by_ref[ref].part]
    assert at(base.saturation_a, part.values["base_v"]) == pytest.approx(0.01, rel=0.01)
    assert base.gain == part.values["gain_min"]


def test_an_open_channel_has_its_ohms_and_its_body_a_diode(whole: Energised) -> None:
    """R = 1 / (k (V - Vth)) near no volts across it; the body 0.75 V at half an ampere."""
    ref, elements = of_role(whole, "cell path")
    values = whole.device.parts[whole.device.by_ref[ref].part].values
    (channel,) = (e for e in elements if isinstance(e, Channel))
    over = values["opens_v"] - values["threshold_v"]
    assert 1 / (channel.k * over) == pytest.approx(values["resistance_ohm"])
    assert channel.sign == -1
    (body,) = (e for e in elements if isinstance(e, Junction))
    assert (body.a, body.b) == (channel.drain, channel.source)
    assert at(body.saturation_a, 0.75) == pytest.approx(0.5, rel=0.01)


@pytest.mark.parametrize(
    ("role", "amperes", "ideality"),
    [("light:lamp", 0.005, 2.0), ("cell path diode", None, 1.0), ("buzzer:horn diode", None, 1.0)],
)
def test_diodes_have_their_volts_at_their_rating_and_lights_at_five_milliamperes(
    role: str, amperes: float | None, ideality: float, whole: Energised
) -> None:
    ref, elements = of_role(whole, role)
    (diode,) = (e for e in elements if isinstance(e, Junction))
    values = whole.device.parts[whole.device.by_ref[ref].part].values
    wanted = amperes or max(0.1, values["current_ma"] / 1000)
    assert diode.ideality == ideality
    assert at(diode.saturation_a, values["forward_v"], ideality) == pytest.approx(wanted, rel=0.01)


def test_a_guard_array_leads_lines_to_its_supply_and_from_ground(whole: Energised) -> None:
    """0.65 V at 5 mA each way; its own supply against ground as a body."""
    ref, elements = of_role(whole, "link:usb guard array")
    rows = [e for e in elements if isinstance(e, Junction)]
    pads = whole.device.by_ref[ref].pads
    five = next(net for net in pads.values() if net.endswith("_5V"))
    lines = {"USB_PLUS", "USB_MINUS"}
    assert {(e.a, e.b) for e in rows} == (
        {(line, five) for line in lines} | {("GROUND", line) for line in lines} | {("GROUND", five)}
    )
    for row in rows:
        wanted = (0.75, 0.5) if row.b == five and row.a == "GROUND" else (0.65, 0.005)
        assert at(row.saturation_a, wanted[0]) == pytest.approx(wanted[1], rel=0.01)


def test_a_pin_is_clamped_like_a_line_of_it(whole: Energised) -> None:
    """From a pin of the chip to its supply and from ground to it, 0.65 V at 5 mA."""
    chip = next(c for c in whole.device.circuit.components if c.is_chip)
    net = whole.answers.made.network
    rows = [e for e in net.junctions if e.ref == chip.ref and "LIGHT_LAMP_DRIVE" in (e.a, e.b)]
    assert {(e.a, e.b) for e in rows} == {
        ("LIGHT_LAMP_DRIVE", "SUPPLY"),
        ("GROUND", "LIGHT_LAMP_DRIVE"),
    }
    for row in rows:
        assert at(row.saturation_a, 0.65) == pytest.approx(0.005, rel=0.01)
