"""A bench for recipes: a brief with a plan that simply takes any pins, so that circuits can be
looked at without the solver.
"""

from dataclasses import replace
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.checks.rule import ReadBy, Subject
from loquet.core.circuit.assembling import assemble
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.design import Choices, Design, slice_of
from loquet.core.energising.device import Device
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.lookup.switched_on import device_of, planned_of
from loquet.core.pins import Assignment, PinPlan
from loquet.core.pins.needing import needs_of


def any_plan(brief: Brief, pins: tuple[str, ...], chip: str, package: str) -> PinPlan:
    """Signals on pins in the order of both."""
    rows = tuple(
        Assignment(
            signal=need.signal, kind=need.kind, title=need.title, net=need.net, pin=pin, port=pin
        )
        for need, pin in zip(needs_of(brief), pins, strict=False)
    )
    return PinPlan(
        chip=chip,
        package=package,
        assignments=rows,
        free=(),
        reserved=(),
        proven=False,
        risk=0,
        length_um=0,
        workings=(),
    )


def bench_for(brief: Brief) -> Bench:
    """Everything that recipes ask for."""
    library = bundled_library()
    chip = chip_for(brief, library)
    ports = tuple(pin.number for pin in chip.pins if pin.kind == "port" and not pin.is_reset)
    plan = any_plan(brief, ports, chip.name, chip.package)
    desk = Desk(brief, plan, chip, library.pattern(f"chip:{chip.name}"))
    assert brief.brain is not None
    return Bench(brief, {brief.brain.name: desk}, library.parts, library.screens)


def seen_with(brief: Brief, **changes: Any) -> Subject:
    """What rules of pins and circuits look at: the brief with its chip, the plan that takes any
    pins, and the circuit made of it.
    """
    library, bench = bundled_library(), bench_for(brief)
    desk = next(iter(bench.desks.values()))
    brains = (ReadBy(brief, desk.chip, desk.plan),)
    house = library.house(Choices().house)
    circuit = assemble(bench)
    return replace(
        Subject(brief, Choices(), house, library, brains=brains, circuit=circuit), **changes
    )


def switched_on(design: Design, library: Library) -> Device:
    """A made design as it is switched on."""
    brains = planned_of(design, library)
    return device_of(design.brief, slice_of(design.circuit), library, brains)
