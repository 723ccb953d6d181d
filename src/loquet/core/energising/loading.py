"""How much of what it stands every part is asked for in a state."""

from collections.abc import Iterator

from loquet.core.circuit import Component
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import through_a
from loquet.core.parts import Part
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.shown import read_si


class Load(Frozen):
    """What a part is asked for and what it stands, in one unit; `share` is the one over the other,
    over 1 is too much.
    """

    ref: str
    words: str
    unit: str
    amount: float
    limit: float
    share: float
    working: Working


def carries_ma(component: Component, part: Part) -> float | None:
    """The most that a part carries for long, in mA: of a fuse as its value says; nothing where it
    does not say.
    """
    values = part.values
    if part.kind == "fuse":
        amps = read_si(component.value, "A")
        return 1000 * amps if amps else values.get("hold_ma")
    return values.get("contact_ma", values.get("current_ma"))


def loads_at(energised: Energised, state: int) -> tuple[Load, ...]:
    """What every part is asked for in a state: of its limits the one that it is nearest to, the
    most loaded part first.
    """
    found = []
    for component in energised.device.circuit.components:
        part = energised.device.parts.get(component.part)
        rows = list(loads_of_part(energised, component, part, state)) if part else []
        if rows:
            found.append(max(rows, key=lambda row: row.share))
    return tuple(sorted(found, key=lambda row: (-row.share, row.ref)))


def loads_of_part(
    energised: Energised, component: Component, part: Part, state: int
) -> Iterator[Load]:
    """Current, volts, heat and supply of a part against what it stands."""
    ref, amps = component.ref, float(through_a(energised, component.ref)[state])
    limit = carries_ma(component, part)
    if limit:
        yield load(ref, "current", "mA", 1000 * amps, limit, part)
    volts = [float(energised.volt(net)[state]) for net in component.pads.values()]
    if "voltage" in part.values and volts:
        yield load(ref, "volts", "V", max(volts) - min(volts), part.figure("voltage"), part)
    if "power_w" in part.values and len(volts) == 2:
        watts = amps * (max(volts) - min(volts))
        yield load(ref, "heat", "mW", 1000 * watts, 1000 * part.figure("power_w"), part)
    if "input_max_v" in part.values:
        top = energised.spots[ref].node("in") or energised.spots[ref].node("supply")
        if top is not None:
            given = abs(float(energised.volt(top)[state]))
            yield load(ref, "volts at its supply", "V", given, part.figure("input_max_v"), part)


def load(ref: str, words: str, unit: str, amount: float, limit: float, part: Part) -> Load:
    """A load with its share."""
    share = amount / limit
    working = Working(
        id=f"on.{ref}.{words}",
        title=f"{words[0].upper()}{words[1:]} of {ref} beside its limit",
        value=100 * share,
        unit="%",
        shown=f"{100 * share:.0f} %",
        formula="100 x X / Xmax",
        inputs=(
            given("X", float(f"{amount:.5g}"), unit, "the circuit switched on, in this state"),
            given("Xmax", limit, unit, part.evidence_text),
        ),
        source=Source(kind="part drawing", text="limits of the parts in the catalogue"),
    )
    return Load(
        ref=ref,
        words=words,
        unit=unit,
        amount=amount,
        limit=limit,
        share=share,
        working=working,
    )
