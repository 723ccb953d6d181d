"""A matrix of plain lights: anodes on the rows, cathodes on the columns, a resistor in each
column.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.light_matrix import ROW_MA, LightMatrix
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si


def recipe(thing: LightMatrix, bench: Bench) -> Fragment:
    """One row is lit at a time; its pin feeds all columns, so each gets its share of what a strong
    pin gives. Raises RecipeNotPossible on a low rail.
    """
    drawer, rail, lamp = (
        Drawer("lights", bench.parts),
        bench.rail(thing),
        bench.parts[thing.bodies()[0].part],
    )
    drop = rail.usual_v - lamp.figure("forward_v")
    if drop < 0.2:
        limit = f"the rail leaves {drop:.1f} V for its resistors"
        raise RecipeNotPossible(thing.name, limit, "Take a rail of 3 V or more.")
    value = nearest(drop / (ROW_MA / thing.columns * 1e-3))
    found = []
    for column in range(1, thing.columns + 1):
        lit = plain_name(thing.role(f"lit {column}"))
        drive = plain_name(thing.role(f"column {column}"))
        words = (show_si(value, "Ω"), "Current of a column of lights")
        found.append(
            drawer.resistor(
                f"{thing.role(f'column {column}')} resistor",
                *words,
                (drive, lit),
            )
        )
        for row in range(1, thing.rows + 1):
            pads = {"cathode": lit, "anode": plain_name(thing.role(f"row {row}"))}
            found.append(
                drawer.take(
                    thing.role(f"{row} {column}"),
                    lamp.id,
                    (lamp.description, f"Light {row}, {column}"),
                    pads,
                )
            )
    working = Working(
        id=f"{thing.name}.column",
        title=f"Resistor of a column of {thing.label}",
        value=value,
        unit="Ω",
        shown=show_si(value, "Ω"),
        formula="(V - Vf) / (Irow / columns), nearest E24",
        inputs=(
            WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
            WorkingInput(
                name="Vf",
                value=f"{lamp.values['forward_v']:g}",
                unit="V",
                origin=lamp.evidence_text,
            ),
            WorkingInput(
                name="Irow", value=f"{ROW_MA:g}", unit="mA", origin="a strong pin; from memory"
            ),
            WorkingInput(name="columns", value=str(thing.columns), origin="brief"),
        ),
        source=Source(kind="standard", text="Ohm's law; E24 of IEC 60063"),
    )
    return Fragment(tuple(found), workings=(working,))


RECIPE = (LightMatrix, recipe)
