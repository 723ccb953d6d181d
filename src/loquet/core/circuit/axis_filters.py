"""A low pass behind each voltage of a control that asks for one: against the noise of a worn track
and of what runs beside its wires.
"""

from math import pi

from loquet.core.brief import Axis, Thing, plain_name
from loquet.core.circuit.axis_dividers import LOWER_OHM, upper_ohm
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

SERIES_OHM = 1_000.0
MIDDLE = 0.25  # a track with its wiper in the middle: two halves side by side
LOW_PASS = Source(
    kind="standard", text="f = 1 / (2 pi R C), low pass of first order; E12 of IEC 60063"
)


def filters(thing: Thing, bench: Bench, part: str, role: str, pads: dict[str, str]) -> Fragment:
    """A resistor and a capacitor on the way of every voltage that leaves a body and is to be
    filtered.
    """
    found: list[Component] = []
    workings: list[Working] = []
    inner = bench.parts[part].values.get("track_ohm", 0.0) * MIDDLE
    for axis in thing.axes():
        line = plain_name(thing.role(axis.piece))
        at = next((name for name, net in pads.items() if net in (line, f"{line}_FULL")), "")
        if not axis.filter_hz or not at:
            continue
        divided = pads[at] != line
        if not divided:
            pads[at] = f"{line}_RAW"
            found.append(series(thing, axis, bench.resistor, (pads[at], line), (role, at)))
        worked = corner(thing, axis, *resistance(thing, bench, inner))
        farads = float(next(i.value for i in worked.inputs if i.name == "C"))
        near = (
            f"divider lower {thing.role(axis.piece)}" if divided else name_of(thing, axis, "series")
        )
        found.append(
            Component(
                role=name_of(thing, axis, "filter"),
                part=bench.capacitor(show_si(farads, "F")),
                block="buttons",
                value=show_si(farads, "F"),
                purpose=f"Low pass of {axis.words}",
                pads={ONE: line, OTHER: GROUND},
                near_role=near,
                near_pad=ONE if divided else OTHER,
                working=worked.id,
            )
        )
        workings.append(worked)
    return Fragment(tuple(found), workings=tuple(workings))


def name_of(thing: Thing, axis: Axis, word: str) -> str:
    """The role of a piece of a low pass."""
    return f"{word} {thing.role(axis.piece)}"


def series(
    thing: Thing, axis: Axis, part: str, ends: tuple[str, str], near: tuple[str, str]
) -> Component:
    """The resistor of a low pass."""
    return Component(
        role=name_of(thing, axis, "series"),
        part=part,
        block="buttons",
        value=show_si(SERIES_OHM, "Ω"),
        purpose=f"Low pass of {axis.words}",
        pads={ONE: ends[0], OTHER: ends[1]},
        near_role=near[0],
        near_pad=near[1],
    )


def resistance(thing: Thing, bench: Bench, inner_ohm: float) -> tuple[float, str]:
    """What stands before the capacitor, in ohm, and where that is from."""
    upper = upper_ohm(thing, bench)
    if not upper:
        return SERIES_OHM + inner_ohm, "1 kΩ and a quarter of the track, its wiper in the middle"
    above = upper + inner_ohm
    return above * LOWER_OHM / (above + LOWER_OHM), "both resistors of the divider side by side"


def corner(thing: Thing, axis: Axis, ohm: float, origin: str) -> Working:
    """The corner that the chosen capacitor gives."""
    farads = nearest(1 / (2 * pi * ohm * axis.filter_hz), "E12")
    value = 1 / (2 * pi * ohm * farads)
    return Working(
        id=f"{thing.name}.{axis.piece}.filter",
        title=f"Corner of the low pass of {axis.words}",
        value=value,
        unit="Hz",
        shown=f"{value:.0f} Hz",
        formula="1 / (2 x pi x R x C)",
        inputs=(
            given("pi", pi, "", "circle"),
            given("R", ohm, "Ω", origin),
            given("C", farads, "F", f"nearest E12 for {axis.filter_hz:g} Hz of the brief"),
        ),
        source=LOW_PASS,
    )
