"""The power of a device as the station shows it: sources, rails, loads, and the ways between them
side by side.
"""

from collections.abc import Mapping

from loquet.core.brief import Brief, Supply
from loquet.core.brief.joining import joiners
from loquet.core.parts import Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.plain.frozen import Frozen
from loquet.core.power.budget import LoadRow, Made, loads_of, rails_made
from loquet.core.power.choosing import best, hours_of
from loquet.core.power.converting import Conversion
from loquet.core.power.currents import MODES, Currents
from loquet.core.power.figures import figures_of
from loquet.core.power.lasting import Lasting, before_v, run_hours
from loquet.core.power.plugged import Plugged, plugged
from loquet.core.provenance import Working


class WayRow(Frozen):
    """A way to make a rail of a source: whether it fits and why not, hours in play, heat (mW) and
    junction (°C) at peak, price and parts.
    """

    feeder: str
    name: str
    title: str
    part: str
    fits: bool
    why_not: str
    hours: float | None
    heat_mw: float
    junction_c: float
    price_cents: float
    parts: int
    taken: bool
    recommended: bool
    reason: str


class RailRow(Frozen):
    """A rail: its volts, what makes it, what its loads take and what is drawn for that from before
    it; how it is fed while its cell is charged, and which other sources feed it as well.
    """

    name: str
    net: str
    volts: float
    fed_by: str
    parent: str
    way: str
    part: str
    load: Currents
    drawn: Currents
    limit_ma: float
    made: bool
    plugged: Plugged | None
    joined: tuple[str, ...]


class SourceRow(Frozen):
    """A source: volts empty, usual and fresh, what it holds and gives, what is drawn from it, and
    hours by mode (nothing where it never runs empty).
    """

    name: str
    title: str
    empty_v: float
    usual_v: float
    fresh_v: float
    capacity_mah: float
    most_ma: float
    stays: bool
    drawn: Currents
    hours: dict[str, float]
    caution: str


class PowerPlan(Frozen):
    """All of it, with the workings of its figures; `lasting` says how long each source lasts with
    every path of the finished circuit, and is empty before there is one: then run times are those
    of the budget.
    """

    sources: tuple[SourceRow, ...]
    rails: tuple[RailRow, ...]
    loads: tuple[LoadRow, ...]
    ways: tuple[WayRow, ...]
    workings: tuple[Working, ...]
    lasting: tuple[Lasting, ...] = ()

    def with_lasting(self, rows: tuple[Lasting, ...], workings: tuple[Working, ...]) -> "PowerPlan":
        """The plan with the run times of the finished circuit in place of those of the budget."""
        hours = {(row.source, row.mode): round(row.hours, 3) for row in rows}
        sources = tuple(
            source.model_copy(
                update={
                    "hours": {m: hours.get((source.name, m), h) for m, h in source.hours.items()}
                }
            )
            for source in self.sources
        )
        anew = {w.id: w for w in workings}
        kept = tuple(anew.get(w.id, w) for w in self.workings)
        update = {"sources": sources, "workings": kept, "lasting": rows}
        return self.model_copy(update=update)


def power_plan(
    brief: Brief,
    parts: Mapping[str, Part],
    modules: Mapping[str, ScreenModule],
    lowest_v: Mapping[str, float],
) -> PowerPlan:
    """The plan as the brief stands; `lowest_v` gives, by rail, the volts below which a brain
    stops.
    """
    loads = loads_of(brief, parts, modules)
    made = rails_made(brief, parts, loads)
    sources = tuple(source_row(m, lowest_v) for m in made if m.feeder and m.supply)
    return PowerPlan(
        sources=sources,
        rails=tuple(rail_row(brief, m, plugged(brief, m, parts)) for m in made),
        loads=loads,
        ways=tuple(row for m in made for row in way_rows(m)),
        workings=figures_of(brief, made, lowest_v, parts),
    )


def rail_row(brief: Brief, made: Made, while_plugged: Plugged | None) -> RailRow:
    """A rail as a row."""
    volts = before_v(made)
    taken, feeder = made.taken, made.feeder
    direct = "is its source" if made.rail.direct else "made by its source"
    if feeder is not None and feeder.PASSES:
        direct = "switched on"
    return RailRow(
        name=made.rail.name,
        net=made.rail.net,
        volts=made.rail.usual_v,
        fed_by=made.rail.fed_by,
        parent=made.parent.name if made.parent else "",
        way=taken.way.title if taken else "nothing makes it" if made.found else direct,
        part=taken.part.id if taken else "",
        load=made.load,
        drawn=Currents(**{mode: made.input_ma(mode, volts) for mode in MODES}),
        limit_ma=taken.part.figure("current_ma") if taken else made.rail.limit_ma,
        made=feeder is not None and (taken is not None or not made.found),
        plugged=while_plugged,
        joined=tuple(t.name for t in joiners(brief, feeder)) if feeder else (),
    )


def source_row(made: Made, lowest_v: Mapping[str, float]) -> SourceRow:
    """A source as a row."""
    supply, feeder = made.supply, made.feeder
    assert supply is not None
    assert feeder is not None
    hours = {}
    if not supply.stays:
        for mode in ("play", "idle", "sleep"):
            if made.load.of(mode) > 0:
                hours[mode] = round(run_hours(made, mode, lowest_v), 3)
    return SourceRow(
        name=feeder.name,
        title=feeder.TITLE,
        empty_v=supply.empty_v,
        usual_v=supply.usual_v,
        fresh_v=supply.fresh_v,
        capacity_mah=supply.capacity_mah,
        most_ma=supply.most_ma,
        stays=supply.stays,
        drawn=Currents(**{mode: made.input_ma(mode, supply.usual_v) for mode in MODES}),
        hours=hours,
        caution=feeder.CAUTION,
    )


def way_rows(made: Made) -> list[WayRow]:
    """The ways that were looked at for a rail, side by side."""
    supply = made.supply
    if not made.found or made.feeder is None:
        return []
    choice = best(supply, made.found, made.load) if supply else None
    rows = []
    for found in made.found:
        recommended = choice is not None and found == choice.conversion
        rows.append(
            WayRow(
                feeder=made.feeder.name,
                name=found.way.name,
                title=found.way.title,
                part=found.part.id,
                fits=found.fits,
                why_not=found.why_not,
                hours=way_hours(supply, found, made),
                heat_mw=round(found.heat_mw, 2),
                junction_c=round(found.junction_c, 1),
                price_cents=round(found.price_cents, 2),
                parts=1 + len(found.way.around),
                taken=made.taken is not None and found == made.taken,
                recommended=recommended,
                reason=choice.reason if choice and recommended else "",
            )
        )
    return rows


def way_hours(supply: Supply | None, found: Conversion, made: Made) -> float | None:
    """Hours in play with a way, where it fits and the source runs empty."""
    if supply is None or not found.fits:
        return None
    hours = hours_of(supply, found, made.load.play)
    return None if hours is None else round(hours, 3)
