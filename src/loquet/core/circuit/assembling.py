"""The circuit stage: the recipe of every thing called in turn, references numbered, nets gathered
and checked.
"""

from collections.abc import Mapping
from dataclasses import replace

from loquet.core.brief import Brief, Thing, keys_of
from loquet.core.brief.shares import share_of
from loquet.core.circuit.axis_lists import axis_lists
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.by_hand import with_changes
from loquet.core.circuit.controls import refuse_control
from loquet.core.circuit.key_levels import pull_down_ohm, pull_down_working, pull_up_working
from loquet.core.circuit.key_lists import key_lists
from loquet.core.circuit.landing import landed_beside
from loquet.core.circuit.links import link_fragments, refuse_links
from loquet.core.circuit.model import (
    GROUND,
    Circuit,
    Component,
    Fragment,
    Net,
    NetKind,
)
from loquet.core.circuit.recipes import rank_of, recipe_for
from loquet.core.circuit.surroundings import surrounded
from loquet.core.circuit.two_wire import bus_of_brain
from loquet.core.parts import Part
from loquet.core.pins.wiring import wiring_of
from loquet.core.power import rail_of, rails_of
from loquet.core.provenance import Working


def assemble(bench: Bench) -> Circuit:
    """All recipes of this brief put together; raises RecipeNotPossible."""
    brief = bench.brief
    refuse_what_cannot_be(brief)
    made: dict[int, list[tuple[Thing, Fragment]]] = {}
    for thing in brief.things:
        function = recipe_for(thing)
        if function is not None:
            found = surrounded(thing, function(thing, bench), bench)
            made.setdefault(rank_of(thing), []).append((thing, reckoned(found)))
    fragments: list[Fragment] = []
    for rank in sorted(made):
        fragments += in_order(made[rank])
        if any(fragment.around or thing.contacts() for thing, fragment in made[rank]):
            fragments.append(Fragment((), workings=key_workings(bench)))
    for brain in brief.brains:
        if brain.name in bench.desks:
            for helpers in (key_lists, axis_lists, bus_of_brain):
                found = helpers(brain, bench)
                own = owned_by(brain, found.components)
                fragments.append(reckoned(replace(found, components=own)))
    fragments.append(test_points(bench))
    fragments = landed_beside(fragments, bench.parts)
    fragments, misfits = with_changes(
        fragments, bench.by_hand, bench.parts, {board.name for board in brief.boards}
    )
    fragments += link_fragments(brief, fragments, bench.parts)
    return gather(brief, fragments, bench.parts).model_copy(update={"misfits": misfits})


def in_order(rows: list[tuple[Thing, Fragment]]) -> list[Fragment]:
    """Of things that stand together: first all of their own components, then what stands around
    them.
    """
    owned = [owned_by(thing, fragment.components) for thing, fragment in rows]
    around = [owned_by(thing, fragment.around) for thing, fragment in rows]
    first = [
        Fragment(components, fragment.kinds, fragment.workings)
        for components, (_, fragment) in zip(owned, rows, strict=True)
    ]
    return first + [Fragment(components) for components in around if components]


def reckoned(fragment: Fragment) -> Fragment:
    """A fragment whose components name the figure that gives their value: of one recipe, the one
    that shows the same value.
    """
    by_value = {working.shown: working.id for working in fragment.workings}
    if not by_value:
        return fragment
    first, around = (
        tuple(c.model_copy(update={"working": by_value.get(c.value, "")}) for c in components)
        for components in (fragment.components, fragment.around)
    )
    return replace(fragment, components=first, around=around)


def owned_by(thing: Thing, components: tuple[Component, ...]) -> tuple[Component, ...]:
    """Components with the thing and the board that they belong to."""
    return tuple(
        c.model_copy(update={"thing": thing.name, "board": c.board or thing.board})
        for c in components
    )


def key_workings(bench: Bench) -> tuple[Working, ...]:
    """What holds a line while its key is open: the rail on which the lines of the brain live that
    reads it.
    """
    brief = bench.brief
    keys = keys_of(brief)
    if not keys:
        return ()
    rail = bench.reader_rail(brief.thing(keys[0].thing)) if brief.brain else rail_of(brief)
    if brief.button_reading == "pull-down-resistors":
        return (pull_down_working(pull_down_ohm(rail), rail),)
    return (pull_up_working(rail),)


def test_points(bench: Bench) -> Fragment:
    """Rails and ground of the main board, for the meter at first power-up."""
    brief, part = bench.brief, bench.pick("test point").id
    rails = rails_of(brief)
    rows = [("rail" if i == 0 else f"rail {r.name}", r.net) for i, r in enumerate(rails)]
    return Fragment(
        tuple(
            Component(
                role=f"test {name}",
                part=part,
                block="service",
                value=net,
                purpose=f"Test point of the {name}",
                pads={"point": net},
                board=brief.boards[0].name,
                bare=True,
            )
            for name, net in (*rows, ("ground", GROUND))
        )
    )


def refuse_what_cannot_be(brief: Brief) -> None:
    """What no circuit can be drawn for, said before any is; raises RecipeNotPossible."""
    shares = [share_of(brief, brain.name) for brain in brief.brains] or [brief]
    wirings = [wiring_of(share) for share in shares]
    for share, wiring in zip(shares, wirings, strict=True):
        for thing in share.things:
            refuse_control(thing, wiring, rail_of(brief, thing).usual_v)
    refuse_links(brief)


TOLD_APART = ("wire plug", "flat-cable connector", "screw terminals")
"""Kinds of connectors that look alike whatever they are for: what hangs on them is printed beside
them.
"""


def said_of(brief: Brief, component: Component) -> str:
    """What a connector is for, in the word of its thing."""
    return brief.thing(component.thing).name if component.thing else ""


def gather(brief: Brief, fragments: list[Fragment], parts: Mapping[str, Part]) -> Circuit:
    """One circuit: references numbered by letter in recipe order, nets by name."""
    counts: dict[str, int] = {}
    components: list[Component] = []
    for component in (c for fragment in fragments for c in fragment.components):
        part = parts.get(component.part)
        letter = "U" if part is None else part.reference
        if part is not None and part.kind in TOLD_APART and not component.printed:
            component = component.model_copy(update={"printed": said_of(brief, component)})
        counts[letter] = counts.get(letter, 0) + 1
        components.append(component.model_copy(update={"ref": f"{letter}{counts[letter]}"}))
    kinds: dict[str, NetKind] = {}
    for fragment in fragments:
        kinds |= fragment.kinds
    pads: dict[str, list[tuple[str, str]]] = {}
    for component in components:
        for pad, net in component.pads.items():
            pads.setdefault(net, []).append((component.ref, pad))
    nets = tuple(
        Net(name=name, kind=kinds.get(name, "signal"), pads=tuple(pads[name]))
        for name in sorted(pads)
    )
    workings = tuple(working for fragment in fragments for working in fragment.workings)
    return Circuit(components=tuple(components), nets=nets, workings=workings)
