"""The last tests of keys and sticks of a unit as they are drawn: every key at its place, every
stick with its rim.
"""

from collections.abc import Sequence
from typing import Any

from pydantic import BaseModel

from loquet.core.brief import Brief
from loquet.core.brief.keys import keys_of
from loquet.core.brief.kinds.pad import STEPS
from loquet.core.build.sticks import Sample, StickAxis, StickResult
from loquet.core.quantities.lengths import MM
from loquet.store.tables import RecordRow

FULL_CODE = 4095
DRAWN_EVERY = 2
BESIDE_MM = 3.0
"""Keys of one five-way part are drawn so far apart about its middle."""


class KeyRead(BaseModel):
    """A key at its place on its board (mm), what read as pressed while it was held, and whether
    that was itself alone.
    """

    key: str
    words: str
    board: str
    x_mm: float
    y_mm: float
    reads: list[str]
    good: bool


class StickDrawn(BaseModel):
    """A stick as it was moved: the way around its rim in codes, both axes, how uneven its reach is,
    the largest code, and which limits it does not keep.
    """

    stick: str
    path: list[tuple[int, int]]
    x: StickAxis
    y: StickAxis
    uneven: float
    full: int
    faults: list[str]
    firmware: list[str]


def keys_read(records: Sequence[RecordRow], brief: Brief) -> list[KeyRead]:
    """Every key of the last test of keys; keys that the brief does not have any more are left
    out.
    """
    last = next((r for r in reversed(records) if r.sort == "keys" and "read" in r.content), None)
    if last is None:
        return []
    found = []
    read: dict[str, list[str]] = last.content["read"]
    for key in keys_of(brief):
        if key.id not in read:
            continue
        own = brief.thing(key.thing)
        middle = own.place and (own.place.x_mm, own.place.y_mm) == (key.x / MM, key.y / MM)
        dx, dy = STEPS.get(key.direction, (0, 0)) if middle else (0, 0)
        found.append(
            KeyRead(
                key=key.id,
                words=key.title,
                board=brief.board(own.board).name,
                x_mm=key.x / MM + dx * BESIDE_MM,
                y_mm=key.y / MM + dy * BESIDE_MM,
                reads=read[key.id],
                good=read[key.id] == [key.id],
            )
        )
    return found


def stick_content(name: str, moved: Sequence[Sample], result: StickResult) -> dict[str, Any]:
    """What is kept of the test of a stick."""
    path = [[s.x, s.y] for s in moved if not s.rest]
    return {
        "words": f"{name}: {'; '.join(result.faults) or 'within its limits'}",
        "good": not result.faults,
        "stick": name,
        "path": path[::DRAWN_EVERY],
        "result": result.model_dump(mode="json"),
    }


def sticks_drawn(records: Sequence[RecordRow]) -> list[StickDrawn]:
    """The last test of every stick."""
    rows = {
        r.content["stick"]: r.content for r in records if r.sort == "stick" and "path" in r.content
    }
    return [
        StickDrawn(stick=name, path=row["path"], full=FULL_CODE, **row["result"])
        for name, row in sorted(rows.items())
    ]
