"""Workings of the power station: budgets, run times, heat, sag and the warning level; each can be
worked out again.
"""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from loquet.core.brief import Brief
from loquet.core.brief.shares import readers_of
from loquet.core.parts import Part
from loquet.core.power.budget import Made
from loquet.core.power.charging import charge_working, program_working
from loquet.core.power.converting import AMBIENT_C, UNKNOWN_K_W
from loquet.core.power.currents import MODES
from loquet.core.power.discharge import (
    COLD_C,
    COLD_MODEL,
    GIVES_MODEL,
    LOSES_MODEL,
    MODEL,
    in_the_cold,
    open_v,
    rundown,
)
from loquet.core.power.lasting import Lasting, source_load, stops_v
from loquet.core.power.plugged import charger_of, entry_value, plugged, port_working
from loquet.core.power.rails import Rail, logic_rail_of
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.core.quantities.shown import read_si

SUM = Source(kind="computed", text="sum over the things of the rail")
LAST_HOURS, LOW_LEFT = 0.25, 0.2
CODES, SENSE_SHARE = 4095, 0.5


def figures_of(
    brief: Brief, made: tuple[Made, ...], lowest_v: Mapping[str, float], parts: Mapping[str, Part]
) -> tuple[Working, ...]:
    """All figures of the plan, rail by rail."""
    found: list[Working] = []
    for row in made:
        found += [budget(row, mode) for mode in MODES]
        if row.taken:
            found.append(junction(row))
            if row.supply and row.load.play > 0:
                found.append(hold_up(row, entry_value(brief, row.feeder)))
        if row.supply and not row.supply.stays and row.load.play > 0:
            found += [
                run_time(row, mode, lowest_v)
                for mode in ("play", "idle", "sleep")
                if row.load.of(mode) > 0
            ]
            found.append(run_cold(row, lowest_v))
            found.append(sag(row))
            if getattr(row.feeder, "sense", False):
                found.append(warning(row, lowest_v, reference_of(brief, row)))
        while_plugged = plugged(brief, row, parts)
        if while_plugged and row.supply and row.feeder:
            held = row.supply.capacity_mah
            found.append(program_working(row.feeder, charger_of(parts)))
            found.append(charge_working(row.feeder, held, charger_of(parts)))
            found.append(port_working(row.rail.name, while_plugged))
    return tuple(found)


def budget(row: Made, mode: str) -> Working:
    """What a rail gives in a mode."""
    value = row.load.of(mode)
    words = {
        "peak": "with everything on at once",
        "play": "in play",
        "idle": "while it waits",
        "sleep": "in sleep",
    }
    unit, shown = ("µA", value * 1000) if value < 0.1 else ("mA", value)
    return Working(
        id=f"power.{row.rail.name}.{mode}",
        title=f"Rail {row.rail.name} {words[mode]}",
        value=value,
        unit="mA",
        shown=f"{shown:.0f} {unit}" if shown >= 10 else f"{shown:.1f} {unit}",
        formula="loads",
        inputs=(
            given(
                "loads",
                value,
                "mA",
                "things of this rail and converters on it, with their share in this mode",
            ),
        ),
        source=SUM,
    )


def junction(row: Made) -> Working:
    """How hot the converter gets inside at peak."""
    taken = row.taken
    assert taken is not None
    return Working(
        id=f"power.{row.rail.name}.junction",
        title=f"Converter of {row.rail.name}, inside, at peak",
        value=taken.junction_c,
        unit="°C",
        shown=f"{taken.junction_c:.0f} °C",
        formula="Ta + P x R",
        inputs=(
            given("Ta", AMBIENT_C, "°C", "a warm day in the shell; assumed"),
            given("P", taken.heat_mw / 1000, "W", "worst of a full and an empty source"),
            theta(taken.part),
        ),
        source=Source(kind="standard", text="Tj = Ta + P RthJA, JESD51-2"),
    )


def hold_up(row: Made, entry: str) -> Working:
    """How long the converter's own input capacitor carries the device while a plug is pulled: t = C
    (V1^2 - V2^2) / (2 P).
    """
    taken, supply = row.taken, row.supply
    assert taken is not None
    assert supply is not None
    high, low = supply.usual_v, min(max(taken.stops_v, supply.empty_v), supply.usual_v)
    watts = high * row.input_ma("play", high) / 1000
    held = read_si(entry, "F") or 0.0
    value = held * (high**2 - low**2) / (2 * watts) * 1e6
    return Working(
        id=f"power.{row.rail.name}.hold_up",
        title=f"Held by the entry capacitor of {row.rail.name}",
        value=value,
        unit="µs",
        shown=f"{value:.0f} µs",
        formula="C x (V1^2 - V2^2) / (2 x P)",
        inputs=(
            given("C", held * 1e6, "µF", "input capacitor of the converter"),
            given("V1", high, "V", supply.source.text),
            given("V2", low, "V", "where the converter stops"),
            given("P", watts, "W", "in play, at the source"),
        ),
        source=Source(
            kind="standard",
            text=(
                "energy of a capacitor; series resistance left out, since a ceramic one has"
                " milliohms"
            ),
        ),
    )


IN_MODE = {"play": "in play", "idle": "while it waits", "sleep": "in sleep"}
LONG_H = 72


def shown_hours(hours: float) -> str:
    """A run time for a person: long ones in days as well."""
    return f"{hours / 24:.0f} days, {hours:.0f} h" if hours > LONG_H else f"{hours:.1f} h"


def run_time(row: Made, mode: str, lowest_v: Mapping[str, float]) -> Working:
    """How long the source lasts in a mode: its share that can be used, over its mean current."""
    supply = row.supply
    assert supply is not None
    stops = stops_v(row, lowest_v)
    found = rundown(supply, source_load(row, mode), stops)
    mean_ma = supply.capacity_mah * found.share / found.hours if found.hours else 0.0
    words = IN_MODE[mode]
    return Working(
        id=f"power.{row.rail.name}.run.{mode}",
        title=f"Run time on {row.rail.words} {words}, by the budget alone",
        value=found.hours,
        unit="h",
        shown=shown_hours(found.hours),
        formula="C x share / I" if mean_ma else "0 x C",
        inputs=(
            given("C", supply.capacity_mah, "mAh", supply.source.text),
            given("share", found.share, "", f"used until {stops:.2f} V under load; {MODEL.text}"),
            given("I", mean_ma, "mA", "mean current at the source, from the budget"),
        ),
        source=MODEL,
    )


def lasts(row: Made, found: Lasting, cold: bool = False) -> Working:
    """How long the source lasts with every path of the finished circuit."""
    supply = row.supply
    assert supply is not None
    plain = IN_MODE[found.mode]
    words = f"{plain} at {COLD_C} °C" if cold else plain
    return Working(
        id=f"power.{row.rail.name}.run.{found.mode}{'.cold' if cold else ''}",
        title=f"Run time on {row.rail.words} {words}",
        value=found.hours,
        unit="h",
        shown=shown_hours(found.hours),
        formula="C x gives x share / I" if found.hours else "0 x C",
        inputs=(
            given("C", supply.capacity_mah, "mAh", supply.source.text),
            given("gives", found.usable, "", GIVES_MODEL.text),
            given(
                "share",
                found.share,
                "",
                f"used until {found.stops_v:.2f} V under load; {MODEL.text}",
            ),
            given(
                "I",
                found.mean_ma,
                "mA",
                f"mean current of the whole circuit, {1000 * found.lost_ma:.1f} µA of it by"
                f" self-discharge ({LOSES_MODEL.text})",
            ),
        ),
        source=COLD_MODEL if cold else MODEL,
    )


def run_cold(row: Made, lowest_v: Mapping[str, float]) -> Working:
    """How long the source lasts in play on a frosty night."""
    assert row.supply is not None
    cold = run_time(replace(row, supply=in_the_cold(row.supply)), "play", lowest_v)
    title = f"Run time on {row.rail.words} in play at {COLD_C} °C, by the budget alone"
    return cold.model_copy(update={"id": f"{cold.id}.cold", "title": title, "source": COLD_MODEL})


def supply_words(row: Made) -> str:
    """The source at the start of a sentence."""
    words = row.rail.words
    return f"{words[0].upper()}{words[1:]}"


def sag(row: Made) -> Working:
    """The source's volts at its peak when a fifth of it is left."""
    supply = row.supply
    assert supply is not None
    inside = float(open_v(supply, LOW_LEFT))
    peak = row.input_ma("peak", inside)
    value = inside - peak / 1000 * supply.resistance_ohm
    return Working(
        id=f"power.{row.rail.name}.sag",
        title=f"{supply_words(row)} under its peak, a fifth left",
        value=value,
        unit="V",
        shown=f"{value:.2f} V",
        formula="Vopen - I x R",
        inputs=(
            given("Vopen", inside, "V", MODEL.text),
            given("I", peak / 1000, "A", "everything on at once, at the source"),
            given("R", supply.resistance_ohm, "Ω", supply.source.text),
        ),
        source=MODEL,
    )


def reference_of(brief: Brief, row: Made) -> Rail:
    """The rail that is the reference of the converter that measures a cell: that of the brain which
    reads it.
    """
    cell = row.feeder
    names = readers_of(brief, cell) if cell else ()
    brain = next((t for t in brief.brains if t.name in names), brief.brain)
    return logic_rail_of(brief, brain) or row.rail if brain else row.rail


def warning(row: Made, lowest_v: Mapping[str, float], measured_by: Rail) -> Working:
    """The converter's code at which a quarter of an hour of play is left."""
    supply = row.supply
    assert supply is not None
    volts = warning_v(row, stops_v(row, lowest_v))
    reference = measured_by.usual_v
    value = volts * SENSE_SHARE / reference * CODES
    return Working(
        id=f"power.{row.rail.name}.warning",
        title="Code of the cell's channel that leaves 15 minutes of play",
        value=value,
        unit="codes",
        shown=f"{volts:.2f} V, {value:.0f} codes",
        formula="V x share / Vref x codes",
        inputs=(
            given("V", volts, "V", f"volts under load with 15 minutes left; {MODEL.text}"),
            given("share", SENSE_SHARE, "", "two equal resistors"),
            given("Vref", reference, "V", f"rail {measured_by.name} of the brain is the reference"),
            given("codes", CODES, "", "12 bits"),
        ),
        source=MODEL,
    )


def warning_v(row: Made, stops: float) -> float:
    """Volts under load in play at which a quarter of an hour is left until the device stops."""
    supply = row.supply
    assert supply is not None
    load = source_load(row, "play")
    low, high = stops, supply.fresh_v
    whole = rundown(supply, load, stops).hours
    for _ in range(30):
        middle = (low + high) / 2
        if whole - rundown(supply, load, middle).hours < LAST_HOURS:
            low = middle
        else:
            high = middle
    return float(np.round((low + high) / 2, 4))


def theta(part: Part) -> WorkingInput:
    """The thermal resistance of a converter, or what is assumed where it does not say any."""
    said = part.values.get("theta_k_w")
    origin = part.evidence_text if said is not None else "not said; assumed as of the smallest"
    return given("R", UNKNOWN_K_W if said is None else said, "K/W", origin)
