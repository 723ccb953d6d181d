"""What a source does that is the wrong way round, or another adapter: worked out by Ohm's law."""

import pytest

from loquet.core.brief import Brief
from loquet.core.checks.switched_on import switched_on
from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.energising.energised import Energised
from loquet.core.energising.put_in_wrong import bursts, wrongs
from tests.core.benches import seen_with
from tests.core.test_faults_put_in import ADAPTER, CELLS, CHIP, WIRES, bridged
from tests.making import device, thing

CLAMP_V, WIRE_OHM = 0.83, 0.1
"""0.65 V at 5 mA are 0.82 V at 4 A and 0.88 V at 40 A by Shockley's law."""
FIVE_IN = device(CHIP, thing("barrel-jack", "jack", adapter_v=5.0))
ACROSS = Component(
    role="across",
    ref="D9",
    part="diode-schottky-sod123",
    block="power",
    value="Schottky",
    purpose="Shorts what comes in the wrong way",
    pads={},
)


def without_guard(brief: Brief, role: str) -> Energised:
    """The device with a piece of wire in place of its guard."""
    circuit = seen_with(brief).circuit
    assert circuit is not None
    change = bridged("2", "3")
    rows = [change(c) if c.role == role else c for c in circuit.components]
    made = circuit.model_copy(update={"components": tuple(c for c in rows if c)})
    return switched_on(seen_with(brief, circuit=made))


@pytest.mark.parametrize(
    ("brief", "role", "ref", "node"),
    [
        (CELLS, "reverse guard", "U1", "SUPPLY"),
        (WIRES, "leads reverse guard", "U2", "SUPPLY"),
        (ADAPTER, "jack reverse guard", "U2", "JACK_IN"),
    ],
)
def test_what_has_no_guard_is_harmed_by_what_the_source_gives(
    brief: Brief, role: str, ref: str, node: str
) -> None:
    """The first part behind a source that is turned holds it at a clamp below ground; what flows is
    what is left over the ohms of the source and the wire.
    """
    energised = without_guard(brief, role)
    (wrong,) = wrongs(energised)
    assert (wrong.ref, wrong.node) == (ref, node)
    assert wrong.volts == pytest.approx(-CLAMP_V, abs=0.04)
    state = energised.states[wrong.state]
    assert [level for _, level in state.sources] == ["reversed"]
    supply = brief.thing(state.sources[0][0]).source()
    assert supply is not None
    ohm = supply.resistance_ohm + WIRE_OHM
    assert wrong.amperes == pytest.approx((supply.usual_v - CLAMP_V) / ohm, rel=0.05)
    assert list(wrongs(switched_on(seen_with(brief)))) == []


def test_a_source_that_is_shorted_by_nothing_that_is_harmed_is_named_itself() -> None:
    """2 AA of 3.0 V over their own ohms into a diode of some 0.5 V."""
    circuit = seen_with(CELLS).circuit
    assert circuit is not None
    top = next(c for c in circuit.components if c.role == "reverse guard").pads["3"]
    across = ACROSS.model_copy(update={"pads": {"1": top, "2": GROUND}})
    made = circuit.model_copy(update={"components": (*circuit.components, across)})
    (wrong,) = wrongs(switched_on(seen_with(CELLS, circuit=made)))
    supply = CELLS.thing("cell").source()
    assert supply is not None
    assert (wrong.ref, wrong.node) == ("", "cell")
    assert wrong.amperes == pytest.approx((3.0 - 0.5) / supply.resistance_ohm, rel=0.1)


def test_the_wrong_adapter_destroys_what_stands_less() -> None:
    """12 V into a jack for 5 V: a regulator for 6 V, its capacitor for 10 V, the gate of the guard
    for 8 V; behind the regulator nothing. A jack for 9 V has parts for 12 V and more.
    """
    energised = switched_on(seen_with(FIVE_IN))
    rows = {energised.device.by_ref[b.ref].role: b for b in bursts(energised)}
    stood = {role: burst.most_v for role, burst in rows.items()}
    assert stood == {"jack converter": 6.0, "jack converter input": 10.0, "jack reverse guard": 8.0}
    for burst in rows.values():
        assert burst.volts == pytest.approx(12.0, abs=0.1)
        assert energised.states[burst.state].sources == (("jack", "wrong"),)
    assert list(bursts(switched_on(seen_with(ADAPTER)))) == []
    assert list(bursts(switched_on(seen_with(CELLS)))) == []
