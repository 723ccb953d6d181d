"""What parts want about them, put beside what a recipe draws: where the recipe has such a part
between the same nets, it gets the value that the drawing asks for.
"""

from collections.abc import Iterator
from dataclasses import replace

from loquet.core.brief import Thing
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.parts import Part, choosing
from loquet.core.parts.choosing import MARGIN
from loquet.core.parts.surroundings import UNITS, Around, NoValue, Reckoned, value_of
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.provenance import Source, Working, given


def surrounded(thing: Thing, fragment: Fragment, bench: Bench) -> Fragment:
    """A fragment with what its parts want about them; raises RecipeNotPossible where a value cannot
    be worked out.
    """
    hosts = [
        (c, part)
        for c in fragment.components
        if (part := bench.parts.get(c.part)) is not None and part.around
    ]
    if not hosts:
        return fragment
    components, workings = list(fragment.components), list(fragment.workings)
    claimed: set[str] = set()
    for host, part in hosts:
        for number, row in enumerate(part.around, 1):
            ends = nets_of(row, host)
            if ends is None:
                continue
            value = value_for(thing, part, row, bench)
            there = drawn_already(components, bench, host, row, ends, claimed)
            made = component_of(host, row, number, ends, value, bench, there)
            claimed.add(made.role)
            if there is None:
                components.append(made)
            else:
                components[components.index(there)] = made
            workings += working_of(made, part, row, value)
    return replace(fragment, components=tuple(components), workings=tuple(workings))


def nets_of(row: Around, host: Component) -> tuple[str, str] | None:
    """The nets of both ends; nothing where one of them is on no net."""
    one = host.pads.get(row.one)
    other = GROUND if row.other == "ground" else host.pads.get(row.other)
    return None if one is None or other is None or one == other else (one, other)


def value_for(thing: Thing, part: Part, row: Around, bench: Bench) -> Reckoned:
    """The value of a row for a part on the rail of its thing."""
    rail = bench.rail(thing)
    try:
        return value_of(row, {**part.values, "rail_v": rail.usual_v})
    except NoValue as error:
        limit = f"the {row.kind} at {row.one} of {part.id}: {error}"
        raise RecipeNotPossible(thing.label, limit, "Mend it on the shelf.") from None


def drawn_already(
    components: list[Component],
    bench: Bench,
    host: Component,
    row: Around,
    ends: tuple[str, str],
    claimed: set[str],
) -> Component | None:
    """The part of the same kind that the recipe has between the same nets, near this one."""
    return next(
        (
            c
            for c in components
            if c.role not in claimed
            and c.near_role == host.role
            and (found := bench.parts.get(c.part)) is not None
            and found.kind == row.kind
            and set(c.pads.values()) == set(ends)
        ),
        None,
    )


def component_of(
    host: Component,
    row: Around,
    number: int,
    ends: tuple[str, str],
    value: Reckoned,
    bench: Bench,
    there: Component | None,
) -> Component:
    """The small part: the recipe's own with this value, or one more."""
    volts = max((r.fresh_v for r in bench.rails if r.net in ends), default=0.0)
    if there is not None:
        volts = max(volts, bench.parts[there.part].values.get("voltage", 0.0) / MARGIN)
    is_capacitor = row.kind == "capacitor"
    part = bench.capacitor(value.shown, volts) if is_capacitor else choosing.resistor(bench.parts)
    if there is not None:
        return there.model_copy(update={"part": part, "value": value.shown, "purpose": row.why})
    return Component(
        role=f"{host.role} around {number}",
        part=part,
        block=host.block,
        value=value.shown,
        purpose=row.why,
        pads={ONE: ends[0], OTHER: ends[1]},
        near_role=host.role,
        near_pad=row.one,
        board=host.board,
    )


def working_of(made: Component, part: Part, row: Around, value: Reckoned) -> Iterator[Working]:
    """How a value was worked out."""
    if not value.formula:
        return
    unit = UNITS[row.kind]
    yield Working(
        id=f"around.{made.role}",
        title=f"{row.why}, at {row.one} of {part.short}",
        value=value.exact,
        unit=unit,
        shown=value.shown,
        formula=f"{value.formula}, then the nearest preferred value (IEC 60063)",
        inputs=tuple(given(n, v, "", part.evidence_text) for n, v in value.inputs.items()),
        source=Source(kind="part drawing", text=part.evidence_text or "its entry on the shelf"),
    )
