"""Cells in series, and a P-channel transistor against cells that are put in the wrong way."""

from loquet.core.brief.kinds.cells import Cells
from loquet.core.brief.kinds.power_switch import PowerSwitch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import switched_by, taken_ma
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.switching import nets_of
from loquet.core.parts import Part
from loquet.core.parts.choosing import p_channel
from loquet.core.provenance import Source, Working, WorkingInput

TOP = 1
ORDINALS = ("Upper", "Second", "Third", "Lowest")


def recipe(thing: Cells, bench: Bench) -> Fragment:
    """Cells to rail.

    The transistor's body diode points the way of the current; its gate at ground opens it fully.
    """
    top, guarded = nets_of(thing)
    rail = bench.rail_fed_by(thing)
    switch = switched_by(bench.brief, thing)
    near = (
        (switch.role(), "common")
        if isinstance(switch, PowerSwitch)
        else (thing.role(str(TOP)), "plus")
    )
    nets = [top, *(middle_net(thing, top, i) for i in range(1, thing.count)), GROUND]
    cells = tuple(cell(thing, i, nets[i], nets[i + 1]) for i in range(thing.count))
    guard = Component(
        role=guard_role(thing),
        part=guard_part(bench, thing).id,
        block="power",
        value="P-channel",
        purpose="Blocks the cells when they are put in the wrong way",
        pads={"gate": GROUND, "source": guarded if switch else rail.net, "drain": top},
        near_role=near[0],
        near_pad=near[1],
    )
    kinds = dict.fromkeys((*nets[:-1], *([guarded] if switch else [])), "supply")
    return Fragment((*cells, guard), kinds, (drop_working(bench, thing),))  # type: ignore[arg-type]


def guard_part(bench: Bench, thing: Cells) -> Part:
    """The P-channel transistor against cells that are turned round; raises PartError."""
    volts = thing.source().fresh_v
    found = p_channel(bench.parts, volts, taken_ma(bench, thing, volts))
    return found or bench.pick("P-channel transistor")


def guard_role(thing: Cells) -> str:
    """The role of the guard."""
    return "reverse guard" if thing.name == thing.WORD else f"reverse guard of {thing.name}"


def middle_net(thing: Cells, top: str, index: int) -> str:
    """The net between two cells."""
    return f"{top}_MIDDLE" if thing.count == 2 else f"{top}_{index}"


def cell(thing: Cells, index: int, plus: str, minus: str) -> Component:
    """One cell in its holder."""
    last = index == thing.count - 1 and thing.count > 1
    word = "Lower" if thing.count == 2 and last else ORDINALS[3 if last else index]
    many = {1: "", 2: " of the pair"}.get(thing.count, " of the row")
    return Component(
        role=thing.role(str(index + 1)),
        part=thing.bodies()[index].part,
        block="power",
        value=f"{thing.size} cell",
        purpose=f"{word} cell{many}" if thing.count > 1 else "The cell",
        pads={"plus": plus, "minus": minus},
        polar=True,
    )


def drop_working(bench: Bench, thing: Cells) -> Working:
    """What is lost in the guard."""
    guard = guard_part(bench, thing)
    drop_mv = bench.load.value * guard.figure("resistance_ohm")
    return Working(
        id="power.guard",
        title="Voltage lost in the reverse guard",
        value=drop_mv,
        unit="mV",
        shown=f"{drop_mv:.1f} mV",
        formula="I x R",
        inputs=(
            WorkingInput(
                name="I",
                value=f"{bench.load.value:.6g}",
                unit="mA",
                origin="everything on at once, see the tally",
            ),
            WorkingInput(
                name="R",
                value=f"{guard.values['resistance_ohm']:g}",
                unit="Ω",
                origin=guard.evidence_text,
            ),
        ),
        source=Source(
            kind="common practice",
            text=(
                "P-channel transistor in the plus line; a Schottky diode would lose about 300 mV,"
                " from memory"
            ),
        ),
    )


RECIPE = (Cells, recipe)
