"""What every part and net in the way of power carries with everything on, from where each source
comes in to where its rail begins.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from itertools import pairwise

from loquet.core.brief import Brief
from loquet.core.brief.joining import joiners
from loquet.core.circuit.backfeed import edges_of, origins_of, walk
from loquet.core.circuit.model import Circuit, Component
from loquet.core.circuit.net_volts import CONVERTERS
from loquet.core.parts import Part
from loquet.core.power.budget import LoadRow, Made
from loquet.core.power.lasting import peak_at_source
from loquet.core.power.plugged import PATH_V, plugged

RIPPLE = 1.2
"""The highest current of a coil over its mean: a ripple of 40 %; common practice, no source."""


@dataclass
class Carried:
    """In mA: by reference of a part, and by net."""

    parts: dict[str, float] = field(default_factory=dict)
    nets: dict[str, float] = field(default_factory=dict)

    def through(self, refs: tuple[str, ...], nets: tuple[str, ...], current_ma: float) -> None:
        """A current that flows through these parts and nets; of several the highest stays."""
        for kept, keys in ((self.parts, refs), (self.nets, nets)):
            for key in keys:
                kept[key] = max(kept.get(key, 0.0), current_ma)


@dataclass(frozen=True)
class Drawn:
    """A current in mA that a source gives for a net."""

    source: str
    net: str
    current_ma: float


def carried_ma(
    circuit: Circuit,
    brief: Brief,
    parts: Mapping[str, Part],
    made: tuple[Made, ...],
    loads: tuple[LoadRow, ...] = (),
) -> Carried:
    """All currents with everything on; `loads` adds what each thing draws over a plug of its
    own.
    """
    known = [c for c in circuit.components if c.part in parts]
    edges = [
        edge
        for component in known
        if parts[component.part].kind not in CONVERTERS
        for edge in edges_of(component, parts[component.part])
    ]
    by_ref = {c.ref: c for c in known}
    found = Carried()
    for row in made:
        found.through((), (row.rail.net,), row.load.peak)
        if row.feeder is not None and row.feeder.PASSES:
            found.through(tuple(passing(row, known, parts)), (), row.load.peak)
    starts = {o.thing: o.net for o in origins_of(circuit.components, parts)}
    at_origin: dict[str, float] = {}
    for drawn in all_drawn(brief, known, parts, made):
        start = starts.get(drawn.source, "")
        refs = walk(start, edges).get(drawn.net)
        if refs is None:
            continue
        nets = {n for ref in refs for n in by_ref[ref].pads.values()} & {start, drawn.net}
        between = {
            net
            for one, two in pairwise(refs)
            for net in set(by_ref[one].pads.values()) & set(by_ref[two].pads.values())
        }
        found.through(refs, tuple(nets | between | {start}), drawn.current_ma)
        at_origin[drawn.source] = max(at_origin.get(drawn.source, 0.0), drawn.current_ma)
    for component in known:
        own = (
            component.thing in at_origin and starts.get(component.thing) in component.pads.values()
        )
        if own and (component.polar or "gives_v" in parts[component.part].values):
            found.through((component.ref,), (), at_origin[component.thing])
    for coil, current in coils(known, parts, made):
        found.through((coil.ref,), tuple(coil.pads.values()), current)
    peaks = {load.thing: load.currents.peak for load in loads}
    for component in known:
        plug = "contact_ma" in parts[component.part].values and component.ref not in found.parts
        if plug and component.thing in peaks:
            found.through((component.ref,), (), peaks[component.thing])
    return found


def all_drawn(
    brief: Brief, known: list[Component], parts: Mapping[str, Part], made: tuple[Made, ...]
) -> Iterator[Drawn]:
    """What every source gives for the device, and a port into a cell that it charges; a cell takes
    its charge the same way back.
    """
    for row in made:
        if row.feeder is None or row.supply is None:
            continue
        entry = entry_of(row, known, parts)
        yield Drawn(row.feeder.name, entry, peak_at_source(row))
        for joined in joiners(brief, row.feeder):
            yield Drawn(joined.name, entry, peak_at_source(row))
        at_plug = plugged(brief, row, parts)
        if at_plug is None:
            continue
        for charger in (c for c in known if parts[c.part].kind == "charger"):
            if charger.thing == row.feeder.name:
                ends = {
                    name: charger.pads.get(p, "")
                    for p, name in parts[charger.part].pin_names.items()
                }
                playing = row.input_ma("peak", PATH_V)
                yield Drawn(at_plug.port, ends.get("in", ""), at_plug.charge_ma + playing)
                yield Drawn(at_plug.port, entry, playing)
                yield Drawn(row.feeder.name, ends.get("cell", ""), at_plug.charge_ma)


def entry_of(row: Made, known: list[Component], parts: Mapping[str, Part]) -> str:
    """Where what a source gives is taken: at its converter, or on its rail."""
    for component in known:
        part = parts[component.part]
        if row.feeder and component.thing == row.feeder.name and part.kind in CONVERTERS:
            return next(
                (net for p, net in component.pads.items() if part.pin_names.get(p) == "in"), ""
            )
    return row.rail.net


def passing(row: Made, known: list[Component], parts: Mapping[str, Part]) -> Iterator[str]:
    """The transistor of a switched rail."""
    for component in known:
        own = row.feeder is not None and component.thing == row.feeder.name
        part = parts[component.part]
        behind = component.pads.get(part.pad("drain")) if "drain" in part.terminals else None
        if own and behind == row.rail.net:
            yield component.ref


def coils(
    known: list[Component], parts: Mapping[str, Part], made: tuple[Made, ...]
) -> Iterator[tuple[Component, float]]:
    """Every coil with its highest current: what its converter gives or takes, whichever flows in
    it, and the ripple.
    """
    by_thing = {m.feeder.name: m for m in made if m.feeder and m.taken}
    for component in known:
        row = by_thing.get(component.thing)
        if parts[component.part].kind == "inductor" and row is not None and row.taken is not None:
            gives = row.load.peak if row.taken.way.name != "boost" else 0.0
            takes = peak_at_source(row) if row.taken.way.name != "buck" else 0.0
            yield component, RIPPLE * max(gives, takes)
