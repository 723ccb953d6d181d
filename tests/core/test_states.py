"""The states of a device: which there are, what they are called, and what is so in each; by hand
from what its sources are.
"""

from dataclasses import replace

import numpy as np
import pytest

from loquet.core.checks.rules import unsolved_state
from loquet.core.checks.switched_on import switched_on
from loquet.core.energising.answering import Answers
from loquet.core.energising.energised import Energised
from loquet.core.energising.loading import loads_at
from loquet.core.energising.states import State, UnknownState, given_of, read_state, usual_state
from loquet.core.energising.wording import words_of
from loquet.core.lookup.switched_on import seen_in
from loquet.core.provenance import Passed, Undetermined
from tests.core.benches import seen_with
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
KEY = thing("button", "go", 20, 20)
ROUND = (
    thing("lithium-cell", "cell", 60, 30, far=True, holder=True),
    thing("usb-charge", "plug"),
)


BOTH = "With cell in and plug plugged in, lines driven high, everything on at once"
ALONE = "With cell in, the lines of chip high, nobody else drives"


def seen(*things: Plain) -> Energised:
    return switched_on(seen_with(device(CHIP, *things)))


def test_every_source_comes_as_its_part_lets_it() -> None:
    """A holder can be turned, a keyed port not; a lithium cell has 3.0 to 4.2 V, a port 4.4 to
    5.25; a jack for 9 V takes the plug of 12 V, one for 12 V that of 24 V.
    """
    held, port = seen(*ROUND).ways
    volts = {level: held.usual_v * share for level, share in held.shares}
    assert volts == pytest.approx({"least": 3.0, "usual": 3.7, "most": 4.2, "reversed": -3.7})
    assert [level for level, _ in port.shares] == ["least", "usual", "most"]
    assert port.usual_v * port.share("most") == pytest.approx(5.25)
    assert (held.stays, held.port, port.stays, port.port) == (False, False, True, True)
    for adapter, wrong in ((9.0, 12.0), (12.0, 24.0)):
        (jack,) = seen(thing("barrel-jack", "jack", adapter_v=adapter)).ways
        assert (jack.wrong_v, jack.share("reversed")) == (wrong, -1.0)
    (plug,) = seen(thing("lithium-cell", "cell", 60, 30, far=True)).ways
    assert "reversed" not in dict(plug.shares)


def test_all_that_differ_are_there_once() -> None:
    found = seen(*ROUND, KEY, thing("power-switch", "off", 60, 50))
    ids = [state.id for state in found.states]
    assert len(ids) == len(set(ids)) > 40
    for wanted in (
        "nothing,reset,play,on",
        "cell=usual,asleep,sleep,on",
        "cell=usual+plug=usual,high,peak,on",
        "plug=usual+cell=reversed,reset,play,on",
        "cell=usual,dark,sleep,off",
        "cell=usual,reset,play,on,key=button go",
        "cell=usual,high,play,on,alone=chip",
    ):
        assert wanted in ids
        assert read_state(found.device, wanted).id == wanted


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("nothing,reset,play,on", "With nothing plugged in, before the firmware runs"),
        ("cell=usual+plug=usual,high,peak,on", BOTH),
        ("cell=reversed,low,play,on", "With cell put in backwards, lines driven low"),
        ("cell=least,reset,play,on,key=button go", "With cell nearly empty, button go held"),
        ("cell=most,asleep,sleep,on", "With cell full, asleep"),
        ("plug=most,dark,sleep,off", "With plug plugged in and at its most volts, switched off"),
        ("cell=usual,high,play,on,alone=chip", ALONE),
    ],
)
def test_a_state_is_said_in_words(text: str, words: str) -> None:
    found = seen(*ROUND, KEY)
    assert words_of(read_state(found.device, text), found.ways) == words


@pytest.mark.parametrize(
    ("text", "problem", "way_out"),
    [
        ("sun=usual,high", "'sun=usual' is no source", "cell: least, usual, most, reversed; plug:"),
        ("plug=reversed,high", "'plug=reversed' is no source", "plug: least, usual, most"),
        ("cell=usual,flying", "'flying' says nothing of a state", "Say one of dark, reset, asleep"),
        ("cell=usual,key=stop", "'key=stop' says nothing", "a key: key=button go"),
    ],
)
def test_a_state_that_is_not_there_is_refused(text: str, problem: str, way_out: str) -> None:
    with pytest.raises(UnknownState) as refused:
        read_state(seen(*ROUND, KEY).device, text)
    assert problem in refused.value.problem
    assert way_out in refused.value.way_out


def test_what_is_so_in_a_state() -> None:
    """What sources have, what is driven and held, and what loads draw: a chip 8 mA in play, a
    quarter of it waiting, a two-thousandth asleep.
    """
    found = seen(*ROUND, KEY, thing("power-switch", "off", 60, 50))

    def given(text: str):  # type: ignore[no-untyped-def]
        return given_of(found.device, found.ways, read_state(found.device, text))

    high = given("cell=most,high,play,on")
    assert high.volts == {"cell": pytest.approx(4.2 / 3.7)}
    assert high.amperes["chip"] == pytest.approx(0.008)
    assert {"cell is there", "plug is absent", "chip drives high", "off is on"} <= high.on
    assert "parts drive high" in high.on
    asleep = given("cell=usual,asleep,sleep,on")
    assert asleep.amperes["chip"] == pytest.approx(4e-6)
    assert "chip drives low" in asleep.on
    assert "parts drive low" not in asleep.on
    dark = given("cell=usual,dark,sleep,off")
    assert "off is off" in dark.on
    assert not any("drives" in word for word in dark.on)
    alone = given("cell=usual,high,play,on,alone=chip")
    assert "chip drives high" in alone.on
    assert "parts drive high" not in alone.on
    assert any("is held" in word for word in given("cell=usual,reset,play,on,key=button go").on)


def test_a_device_is_used_on_its_own_sources() -> None:
    assert usual_state(seen(*ROUND).ways) == State((("cell", "usual"),), "high")
    leads = seen(thing("leads", "leads"))
    assert usual_state(leads.ways) == State((("leads", "usual"),), "high")


def test_parts_stand_beside_the_limit_that_they_are_nearest_to() -> None:
    """A light of 2.0 V behind its resistor; a switch for 300 mA that carries the chip's 8 mA and
    the light.
    """
    lamp, switch_at = thing("light", "lamp", 20, 20), thing("power-switch", "off", 60, 50)
    air = thing("bus-sensor", "air")
    found = seen(thing("leads", "leads", gives_ma=1000), lamp, switch_at, air)
    index = [s.id for s in found.states].index("leads=usual,high,play,on")
    loads = {row.ref: row for row in loads_at(found, index)}
    switch = next(c.ref for c in found.device.circuit.components if c.role == "switch:off")
    row = loads[switch]
    assert (row.words, row.unit, row.limit) == ("current", "mA", 300)
    assert row.share == pytest.approx(row.amount / 300)
    assert row.working.value == pytest.approx(100 * row.share)
    resistor = next(c for c in found.device.circuit.components if c.role == "light:lamp resistor")
    across = [float(found.volt(net)[index]) for net in resistor.pads.values()]
    assert resistor.value == "680 Ω"
    milliwatts = 1000 * (across[0] - across[1]) ** 2 / 680
    assert loads[resistor.ref].amount == pytest.approx(milliwatts, rel=1e-3)
    sensor = next(c for c in found.device.circuit.components if c.role == "sensor:air")
    row = loads[sensor.ref]
    assert (row.words, row.unit, row.limit) == ("volts at its supply", "V", 3.6)
    assert row.share == pytest.approx(float(found.volt("SUPPLY")[index]) / 3.6, abs=1e-3)
    quiet = next(c for c in found.device.circuit.components if c.role.startswith("decoupling"))
    assert (loads[quiet.ref].words, loads[quiet.ref].limit) == ("volts", 16.0)
    assert loads[quiet.ref].amount == pytest.approx(float(found.volt("SUPPLY")[index]), abs=1e-3)
    shares = [row.share for row in loads_at(found, index)]
    assert shares == sorted(shares, reverse=True)


def test_wires_give_no_more_than_they_are_said_to() -> None:
    found = seen(thing("leads", "leads", gives_ma=100))
    (source,) = found.answers.made.network.sources
    assert (source.volts, source.most_a) == (3.3, 0.1)


@pytest.mark.parametrize(
    ("maker", "net", "state"),
    [
        ((thing("host-computer", "host"),), "SUPPLY", "host=usual,high,peak"),
        (
            (thing("leads", "leads", volts=5.0), thing("ready-module", "host", rail="leads")),
            "SUPPLY_HOST",
            "leads=usual,high,peak",
        ),
    ],
)
@pytest.mark.parametrize(("count", "up"), [(4, True), (20, False)])
def test_a_host_or_module_gives_no_more_than_its_own_regulator(
    maker: tuple[Plain, ...], net: str, state: str, count: int, up: bool
) -> None:
    """Some 500 mA at 3.3 V: lights of 240 mA leave the rail up, 1,200 mA bring it down."""
    ring = thing("light-chain", "ring", 80, 40, count=count, rail="host")
    whole = switched_on(seen_with(device(*maker, ring)))
    one = seen_in(whole, read_state(whole.device, state))
    assert (float(one.volt(net)[0]) > 3.1) == up
    assert all(float(given[0]) < 0.62 for given in one.given_a.values())


def test_a_state_without_an_answer_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    """Nobody passes what nobody worked out: the rule that says so does not pass, and names it."""
    found = seen(thing("leads", "leads"), KEY)
    answer, lost = found.answers, np.ones(len(found.states), dtype=np.bool_)
    lost[1] = False
    broken = replace(found, answers=Answers(answer.made, answer.values, answer.volts, lost))
    assert isinstance(unsolved_state.run(seen_with(device(CHIP, KEY))), Passed)
    monkeypatch.setattr(unsolved_state, "switched_on", lambda _: broken)
    said = unsolved_state.run(seen_with(device(CHIP, KEY)))
    assert isinstance(said, Undetermined)
    (finding,) = said.missing
    assert (finding.severity, finding.state) == ("look", found.states[1].id)
    assert finding.sentence.startswith("With nothing plugged in, lines driven high: no answer")
