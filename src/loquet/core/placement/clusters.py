"""Clusters: parts that move as one, a host with all that belongs beside its pads, or test points in
a row.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from loquet.core.circuit import Component
from loquet.core.geometry import Seat

ROW_STEP_NM = 500_000


@dataclass(frozen=True)
class Member:
    """A part of a cluster and its seat while the cluster stands unturned at the origin."""

    component: Component
    seat: Seat

    def at(self, x: int, y: int, turn_deg: int) -> Seat:
        """Its seat once the cluster stands there."""
        px, py = Seat(x, y, turn_deg).point(self.seat.x, self.seat.y)
        return replace(self.seat, x=px, y=py, turn_deg=(self.seat.turn_deg + turn_deg) % 360)


@dataclass(frozen=True)
class Cluster:
    """Parts that move as one; the first leads."""

    members: tuple[Member, ...]

    @property
    def name(self) -> str:
        """The reference of its lead."""
        return self.members[0].component.ref

    @property
    def like(self) -> str:
        """What it is; clusters of one kind are stood in line."""
        return " ".join(m.component.part for m in self.members)


def families(free: Iterable[Component]) -> list[list[Component]]:
    """Free parts as trees: each root, then what belongs beside it, then what belongs beside
    that.
    """
    parts = list(free)
    roles = {c.role for c in parts}
    roots = [c for c in parts if c.near_role not in roles]
    return [[root, *below(root, parts)] for root in roots]


def below(root: Component, parts: list[Component]) -> list[Component]:
    """All that belongs beside a part, and beside that, nearest first."""
    found, wave, seen = [], [root], {root.role}
    while wave:
        wave = [
            c for host in wave for c in parts if c.near_role == host.role and c.role not in seen
        ]
        seen |= {c.role for c in wave}
        found += wave
    return found


def is_probe(component: Component) -> bool:
    """Whether a part is a test point that stands where there is room."""
    return component.bare and not component.near_role and component.part.startswith("test-point")


def row_of(components: list[Component], wide_nm: int) -> Cluster:
    """Equal parts side by side."""
    step = -(-wide_nm // ROW_STEP_NM) * ROW_STEP_NM
    return Cluster(tuple(Member(c, Seat(index * step, 0)) for index, c in enumerate(components)))
