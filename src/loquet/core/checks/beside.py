"""How far parts lie from the pad beside which they belong."""

from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.board import BoardView
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit import Component
from loquet.core.geometry import gap_between
from loquet.core.provenance import NotApplicable, Outcome
from loquet.core.quantities.lengths import MM


@dataclass(frozen=True)
class Beside:
    """A part, its host, and how far its nearest pad of the shared net is from the host's, in nm."""

    part: Component
    host: Component
    away_nm: float


def kind_of(subject: Subject, component: Component) -> str:
    """The kind of a part; `chip` for a microcontroller."""
    return "chip" if component.is_chip else subject.library.parts[component.part].kind


def beside(
    subject: Subject, view: BoardView, parts: tuple[str, ...], hosts: tuple[str, ...]
) -> Iterator[Beside]:
    """Every part of these kinds that belongs beside a pad of a host of those kinds, with its
    distance from there.
    """
    by_role = {c.role: c for c in view.circuit.components}
    pads = view.pads_by_contact
    for part in view.circuit.components:
        host = by_role.get(part.near_role)
        if host is None or kind_of(subject, part) not in parts:
            continue
        if kind_of(subject, host) not in hosts:
            continue
        net = host.pads.get(part.near_pad, "")
        ends = [p for n, at in part.pads.items() if at == net for p in pads.get((part.ref, n), ())]
        goals = pads.get((host.ref, part.near_pad), [])
        if ends and goals:
            away = min(gap_between(a.shape, b.shape) for a in ends for b in goals)
            yield Beside(part, host, away)


def apart(
    rule: Rule,
    subject: Subject,
    parts: tuple[str, ...],
    hosts: tuple[str, ...],
    most_mm: float,
) -> Outcome:
    """The outcome of a rule that asks for parts to lie within a distance of their pads."""
    view = subject.view
    assert view is not None
    rows = list(beside(subject, view, parts, hosts))
    if not rows:
        return NotApplicable(f"no {parts[0]} belongs beside a {hosts[0]}")
    found = [
        rule.finding(
            f"{row.part.ref} ({row.part.purpose}) is {row.away_nm / MM:.1f} mm from pad"
            f" {row.part.near_pad} of {row.host.ref}; {most_mm:g} mm are the most.",
            f"Move {row.part.ref} to that pad, or make room for it there.",
            (f"part:{row.part.ref}", f"part:{row.host.ref}"),
            view.seats[row.part.ref].x,
            view.seats[row.part.ref].y,
        )
        for row in rows
        if row.away_nm > most_mm * MM
    ]
    return outcome(found, len(rows))
