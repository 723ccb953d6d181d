"""A crystal at its brain with the capacitors that make its load."""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest

LOAD = Source(kind="standard", text="CL = C1 C2 / (C1 + C2) + Cstray, both capacitors equal")


def crystal(thing: Thing, bench: Bench, stray_pf: float) -> Fragment:
    """The crystal between its two lines, at the brain's pins, and a capacitor at each end."""
    drawer, desk, role = Drawer("crystal", bench.parts), bench.desk(thing), thing.role()
    part = bench.parts[thing.bodies()[0].part]
    lines = [plain_name(thing.role(piece)) for piece in ("in", "out")]
    pins = {row.net: row.pin for row in desk.plan.assignments}
    brain = desk.share.brain
    assert brain is not None
    nets = dict(zip((ONE, OTHER), lines, strict=True)) | {"can": GROUND}
    near = (brain.role(), pins[lines[0]]) if lines[0] in pins else ("", "")
    value = nearest(2 * (part.figure("load_pf") - stray_pf) * 1e-12) * 1e12
    body = drawer.named(role, part.id, (part.short, thing.TITLE), nets)
    body = body.model_copy(update={"near_role": near[0], "near_pad": near[1]})
    capacitors = [
        drawer.capacitor(
            f"{role} load {line}",
            f"{value:g} pF",
            "Load of the crystal",
            (net, GROUND),
            Near(role, end),
        )
        for line, net, end in zip(("in", "out"), lines, (ONE, OTHER), strict=True)
    ]
    return Fragment(
        (body, *capacitors),
        workings=(
            load_working(thing, part.figure("load_pf"), stray_pf, value, part.evidence_text),
        ),
    )


def load_working(
    thing: Thing, load_pf: float, stray_pf: float, value_pf: float, text: str
) -> Working:
    """How the capacitors were found."""
    return Working(
        id=f"{thing.name}.load",
        title=f"Load capacitors of {thing.label}",
        value=value_pf,
        unit="pF",
        shown=f"{value_pf:g} pF each",
        formula="2 x (CL - Cstray), nearest E24",
        inputs=(
            WorkingInput(name="CL", value=f"{load_pf:g}", unit="pF", origin=text),
            WorkingInput(
                name="Cstray",
                value=f"{stray_pf:g}",
                unit="pF",
                origin="pins and tracks; common practice",
            ),
        ),
        source=LOAD,
    )
