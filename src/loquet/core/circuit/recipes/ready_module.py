"""A ready module: its pads on their nets, and a capacitor where power comes in."""

from loquet.core.brief.kinds.programming import Programming
from loquet.core.brief.kinds.ready_module import ReadyModule
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import CHIP_PART, GROUND, Component, Fragment
from loquet.core.parts.terminal import ONE, OTHER


def recipe(thing: ReadyModule, bench: Bench) -> Fragment:
    """Signals by the plan; power in from its rail, and out on the rail that it makes."""
    desk = bench.desk(thing)
    taken, made = bench.rail(thing).net, bench.rail_fed_by(thing).net
    signals = {row.pin: row.net for row in desk.plan.assignments}
    fixed = {"supply": taken, "ground": GROUND, "gives": made}
    probe = any(isinstance(t, Programming) for t in desk.share.things)
    pads = {}
    for pin in desk.chip.pins:
        if pin.kind in fixed:
            pads[pin.number] = fixed[pin.kind]
        elif pin.is_reset and probe:
            pads[pin.number] = desk.net("RESET")
        elif pin.number in signals:
            pads[pin.number] = signals[pin.number]
    entry = next(pin.number for pin in desk.chip.pins if pin.kind == "supply")
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=f"{CHIP_PART}{desk.chip.name}",
                block="module",
                value=desk.chip.name,
                purpose="Ready module",
                pads=pads,
            ),
            Component(
                role=f"{thing.role()} bulk",
                part=bench.capacitor("10 µF"),
                block="module",
                value="10 µF",
                purpose="Bulk capacitor of the module",
                pads={ONE: taken, OTHER: GROUND},
                near_role=thing.role(),
                near_pad=entry,
            ),
        ),
        {taken: "supply", made: "supply", GROUND: "ground"},
    )


RECIPE = (ReadyModule, recipe)
