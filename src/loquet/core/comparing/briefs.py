"""What differs between two briefs, in words: what came, went, moved and changed."""

from typing import Any, Literal

from loquet.core.brief import Brief, Thing
from loquet.core.plain.frozen import Frozen

ChangeKind = Literal["came", "went", "moved", "changed"]
APART = ("name", "kind", "place", "board")


class Change(Frozen):
    """One difference: the kind, what it is about (a thing, a board, or a wish), and how."""

    what: ChangeKind
    about: str
    how: str


def compare(before: Brief, after: Brief) -> tuple[Change, ...]:
    """All differences: boards first, then things in the order of the later brief, then what is
    wished.
    """
    return (*board_changes(before, after), *thing_changes(before, after), *wishes(before, after))


def board_changes(before: Brief, after: Brief) -> list[Change]:
    """Boards and outlines."""
    old, new = ({b.name: b for b in brief.boards} for brief in (before, after))
    found = [Change(what="came", about=name, how="a board") for name in new if name not in old]
    found += [Change(what="went", about=name, how="a board") for name in old if name not in new]
    for name in new:
        if name in old and old[name] != new[name]:
            found.append(Change(what="changed", about=name, how="its outline"))
    return found


def thing_changes(before: Brief, after: Brief) -> list[Change]:
    """Things by their names."""
    old, new = ({t.name: t for t in brief.things} for brief in (before, after))
    found = []
    for name, thing in new.items():
        if name not in old:
            found.append(Change(what="came", about=name, how=thing.TITLE.lower()))
            continue
        found += changes_of(old[name], thing)
    found += [
        Change(what="went", about=name, how=thing.TITLE.lower())
        for name, thing in old.items()
        if name not in new
    ]
    return found


def changes_of(old: Thing, new: Thing) -> list[Change]:
    """Whether a thing moved, and which of its fields changed."""
    found = []
    if (old.board, old.place) != (new.board, new.place):
        found.append(Change(what="moved", about=new.name, how=f"from {where(old)} to {where(new)}"))
    before, after = old.model_dump(), new.model_dump()
    for field, value in after.items():
        if field not in APART and before.get(field) != value:
            how = f"{field.replace('_', ' ')} from {said(before.get(field))} to {said(value)}"
            found.append(Change(what="changed", about=new.name, how=how))
    return found


def where(thing: Thing) -> str:
    """A place in words."""
    if thing.place is None:
        return "no place of its own"
    turn = f", turned {thing.place.turn_deg}°" if thing.place.turn_deg else ""
    side = ", far side" if thing.place.far else ""
    return f"{thing.place.x_mm:.2f}, {thing.place.y_mm:.2f} mm{turn}{side} on {thing.board}"


def wishes(before: Brief, after: Brief) -> list[Change]:
    """Everything of the brief that is neither board nor thing."""
    old, new = plain_wishes(before), plain_wishes(after)
    return [
        Change(
            what="changed",
            about=field.replace("_", " "),
            how=f"from {said(old.get(field))} to {said(value)}",
        )
        for field, value in new.items()
        if field not in ("boards", "things") and old.get(field) != value
    ]


def plain_wishes(brief: Brief) -> dict[str, Any]:
    """The fields of a brief, those of how its boards are made one by one."""
    plain = brief.model_dump(mode="json")
    return {**plain, **plain.pop("making")}


def said(value: Any) -> str:
    """A value in few words."""
    text = "nothing" if value in (None, "", ()) else str(value)
    return text if len(text) <= 60 else f"{text[:57]}..."
