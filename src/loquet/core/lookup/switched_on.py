"""A design switched on: its device with the plans of its brains, in all states; kept as long as
what it is made of stays the same.
"""

from collections.abc import Iterable, Mapping

from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.design import Design, plans_of, slice_of
from loquet.core.energising.carried import Carried, carried
from loquet.core.energising.device import Device, Use
from loquet.core.energising.energised import Energised, energised, in_states
from loquet.core.energising.lasting import lasting
from loquet.core.energising.states import State
from loquet.core.freshness import stale_subjects
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.lookup.powering import lowest_of, made_of, power_of
from loquet.core.parts import Chip
from loquet.core.pins import PinPlan
from loquet.core.plain.remembering import Remembered
from loquet.core.power.budget import loads_of
from loquet.core.power.discharge import in_the_cold
from loquet.core.power.figures import lasts
from loquet.core.power.plan import PowerPlan

KEPT: Remembered[Energised] = Remembered(16)
WITH: Remembered[PowerPlan] = Remembered(16)
CARRIED: Remembered[Carried] = Remembered(16)
Planned = tuple[str, Chip | None, PinPlan | None]
"""A brain by name, its chip and its plan."""


def device_of(
    brief: Brief, circuit: Circuit, library: Library, brains: Iterable[Planned]
) -> Device:
    """A circuit as it is switched on."""
    return Device(
        brief,
        circuit,
        library.parts,
        made_of(brief, library),
        loads_of(brief, library.parts, library.screens),
        uses_of(circuit, brains),
    )


def uses_of(circuit: Circuit, brains: Iterable[Planned]) -> Mapping[str, Mapping[str, Use]]:
    """By reference and pad, what brains do at their pins."""
    found: dict[str, dict[str, Use]] = {}
    for name, chip, plan in brains:
        component = next((c for c in circuit.components if c.is_chip and c.thing == name), None)
        if component is None or chip is None or plan is None:
            continue
        five = {pin.number: pin.five_volt for pin in chip.pins}
        found[component.ref] = {a.pin: Use(a.kind, five.get(a.pin)) for a in plan.assignments}
    return found


def energised_of(
    brief: Brief, circuit: Circuit, library: Library, brains: Iterable[Planned]
) -> Energised:
    """All states of a design."""
    rows = tuple(brains)
    plans = tuple(thing for _, chip, plan in rows for thing in (chip, plan))
    return KEPT.of(
        (brief, circuit, library, *plans),
        lambda: energised(device_of(brief, circuit, library, rows)),
    )


def planned_of(design: Design, library: Library) -> tuple[Planned, ...]:
    """The brains of a design with chip and plan."""
    plans = plans_of(design)
    return tuple(
        (brain.name, chip_for(design.brief, library, brain.name), plans.get(brain.name))
        for brain in design.brief.brains
    )


def carried_of(
    brief: Brief, circuit: Circuit, library: Library, brains: Iterable[Planned]
) -> Carried:
    """What every part and net carries."""
    found = energised_of(brief, circuit, library, brains)
    return CARRIED.of((found,), lambda: carried(found))


def power_with(design: Design, library: Library) -> PowerPlan:
    """The power plan of a design: with the run times of its circuit, where that is made and
    fresh.
    """
    plan, stale = power_of(design.brief, library), {name for name, _ in stale_subjects(design)}
    if not design.circuit or stale & {"pins", "circuit"}:
        return plan
    circuit, brains = slice_of(design.circuit), planned_of(design, library)
    plans = tuple(each for _, chip, pins in brains for each in (chip, pins))

    def work() -> PowerPlan:
        device = device_of(design.brief, circuit, library, brains)
        lowest, rows, workings = lowest_of(design.brief, library), [], []
        modes = {source.name: source.hours for source in plan.sources}
        for made in device.made:
            thing, supply = made.feeder, made.supply
            if thing is None or supply is None or supply.stays or thing not in device.sources:
                continue
            for mode in modes.get(thing.name, ()):
                rows.append(lasting(device, thing, supply, mode, lowest))
                workings.append(lasts(made, rows[-1]))
            if "play" in modes.get(thing.name, ()):
                cold = lasting(device, thing, in_the_cold(supply), "play", lowest)
                workings.append(lasts(made, cold, cold=True))
        return plan.with_lasting(tuple(rows), tuple(workings))

    return WITH.of((plan, circuit, library, *plans), work)


def seen_in(whole: Energised, state: State) -> Energised:
    """A device in one state, whichever it is."""
    return in_states(whole.device, whole.ways, (state,))
