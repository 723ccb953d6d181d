"""A transistor below what a pin cannot drive by itself: its base current, and what keeps it off
while the chip is in reset.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.circuit.model import GROUND, Component
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts import Part
from loquet.core.parts.choosing import Wanted, npn, pick
from loquet.core.power import Rail
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

OFF = "100 kΩ"
GATE_REST, GATE_REST_OHM = "10 kΩ", 10_000.0
PIN_MA = 8.0  # the least that usual chips promise at good levels; from memory
FORCED_GAIN, PIN_DROP_V = 20.0, 0.4


@dataclass(frozen=True)
class Below:
    """The nets of a driver: what it pulls low, the line that drives it, and its base; `named` says
    what it drives, `beside` where it stands.
    """

    low: str
    drive: str
    base: str
    named: str
    beside: Near


def base_ohm(load_a: float, transistor: Part, logic_v: float) -> float:
    """The base resistor in ohm that saturates a transistor with a load in A, driven from a pin of
    so many volts.
    """
    return nearest((logic_v - PIN_DROP_V - transistor.figure("base_v")) / (load_a / FORCED_GAIN))


def low_side(drawer: Drawer, role: str, below: Below, base: str) -> list[Component]:
    """The transistor with its base resistor and the one that holds its base low."""
    transistor = f"{role} transistor"
    near = Near(transistor, "base")
    return [
        drawer.take(
            transistor,
            npn(drawer.parts).id,
            ("NPN", f"Switches {below.named}"),
            {"base": below.base, "emitter": GROUND, "collector": below.low},
            below.beside,
        ),
        drawer.resistor(
            f"{role} base resistor",
            base,
            f"Base current of the transistor of {below.named}",
            (below.drive, below.base),
            near,
        ),
        drawer.resistor(
            f"{role} off",
            OFF,
            f"Keeps {below.named} off during reset",
            (below.base, GROUND),
            near,
        ),
    ]


@dataclass(frozen=True)
class Above:
    """The nets of a driver above its load: the rail, what it feeds, the line that drives it, its
    gate and base, and what it feeds in words; `beside` is where it stands, `itself` its role where
    it is a thing of its own.
    """

    rail: str
    high: str
    drive: str
    gate: str
    base: str
    named: str
    beside: Near | None = None
    itself: str = ""


def high_side(drawer: Drawer, role: str, above: Above, base: str) -> list[Component]:
    """A P-channel transistor that a smaller one turns on, so that its load is off while the chip is
    in reset.
    """
    upper, gate = above.itself or f"{role} upper transistor", above.gate
    at_gate = Near(upper, "gate")
    below = Below(gate, above.drive, above.base, above.named, at_gate)
    return [
        drawer.take(
            upper,
            upper_part(drawer.parts).id,
            ("P-channel", f"Feeds {above.named}"),
            {"gate": gate, "source": above.rail, "drain": above.high},
            above.beside,
        ),
        drawer.resistor(
            f"{role} gate rest",
            GATE_REST,
            f"Keeps {above.named} off until it is wanted",
            (above.rail, gate),
            at_gate,
        ),
        *low_side(drawer, role, below, base),
    ]


def upper_part(parts: Mapping[str, Part]) -> Part:
    """The P-channel transistor of a switched rail; raises PartError."""
    return pick(parts, Wanted("P-channel transistor"))


def gate_current(rail_v: float) -> WorkingInput:
    """What pulls the gate of the upper transistor, in A."""
    origin = f"{rail_v:g} V over {GATE_REST} at the gate"
    return given("I", rail_v / GATE_REST_OHM, "A", origin)


def base_working(
    key: str, named: str, load: WorkingInput, transistor: Part, logic: Rail
) -> Working:
    """How a base resistor was found; `load` is the current I in A."""
    value = base_ohm(float(load.value), transistor, logic.usual_v)
    return Working(
        id=f"{key}.base",
        title=f"Base resistor of {named}",
        value=value,
        unit="Ω",
        shown=show_si(value, "Ω"),
        formula="(V - Vpin - Vbe) / (I / gain), nearest E24",
        inputs=(
            given("V", logic.usual_v, "V", logic.source.text),
            given("Vpin", PIN_DROP_V, "V", "drop of a chip's pin under load; from memory"),
            given("Vbe", transistor.figure("base_v"), "V", transistor.evidence_text),
            load,
            given("gain", FORCED_GAIN, "", "forced gain of a saturated switch; common practice"),
        ),
        source=Source(
            kind="common practice", text="saturated switch at a forced gain of 20; E24 of IEC 60063"
        ),
    )
