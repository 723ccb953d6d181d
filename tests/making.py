"""Briefs for tests: examples with things changed, added and taken away, checked as any brief is."""

import json
from typing import Any

from loquet.core.brief import Brief, brief_from_plain
from loquet.core.brief.kinds import kind_named
from loquet.core.brief.making import Making
from loquet.core.brief.thing import Thing
from loquet.demo.scenario import demo_brief

Plain = dict[str, Any]


def plain_of(brief: Brief) -> Plain:
    """A brief as plain values."""
    values: Plain = json.loads(brief.model_dump_json())
    return values


def varied(
    base: Brief | str,
    *,
    things: dict[str, Plain | None] | None = None,
    plus: tuple[Plain, ...] = (),
    only: tuple[str, ...] | None = None,
    **wishes: Any,
) -> Brief:
    """A brief (or an example by name) with fields of things changed by name (None takes one out),
    things added, and wishes changed.

    `only` keeps the things of these groups and those that are named.
    """
    values = plain_of(demo_brief(base) if isinstance(base, str) else base)
    changes = things or {}
    rows = []
    for row in values["things"]:
        model = kind_named(row["kind"])
        assert model is not None
        if only is not None and model.GROUP not in only and row["name"] not in only:
            continue
        change = changes.get(row["name"], {})
        if change is not None:
            rows.append({**row, **change})
    return brief_from_plain({**values, **wishes, "things": [*rows, *plus]})


def thing(
    kind: str, name: str, x: float | None = None, y: float | None = None, **more: Any
) -> Plain:
    """A thing as plain values."""
    place = None if x is None else {"x_mm": x, "y_mm": y, "turn_deg": more.pop("turn_deg", 0)}
    if place is not None and more.pop("far", False):
        place["far"] = True
    return {"kind": kind, "name": name, "place": place, **more}


def device(*things: Plain, **wishes: Any) -> Brief:
    """A brief with these things alone, on a board of 120 x 60 mm; chips without a port are
    programmed before they are soldered, unless they say otherwise.
    """
    if not any(isinstance(t, dict) and t["kind"] == "programming" for t in things):
        decided = {"programmed": "before it is soldered"}
        things = tuple(
            {**decided, **t} if isinstance(t, dict) and t["kind"] == "chip" else t for t in things
        )
    outline = {"kind": "rounded-rectangle", "width_mm": 120, "height_mm": 60}
    plain = {
        "format": "loquet-brief-2",
        "name": "Bell pad",
        "boards": [{"name": "main", "outline": outline}],
        "things": list(things),
        "quantity": 1,
        "wanted_by": "2027-05-01",
    }
    return brief_from_plain({**plain, **wishes})


def made(kind: str, name: str = "", **more: Any) -> Any:
    """A thing of a kind as a value."""
    model = kind_named(kind)
    assert model is not None
    found: Thing = model.model_validate({"name": name or model.WORD, **more})
    return found


def on_cells(**more: Any) -> Brief:
    """The ridge handset fed by two AAA cells, by itself, on a chip that is large enough."""
    return varied(
        more.pop("base", "ridge-handset"),
        things={
            "usb": None,
            "cell": None,
            "chip": {"part": "stm32f072rbt6"},
            **more.pop("things", {}),
        },
        plus=(thing("cells", "cells", 75, 42, far=True), *more.pop("plus", ())),
        role=more.pop("role", "stand-alone"),
        **more,
    )


def as_made(brief: Brief, **making: Any) -> Brief:
    """A brief whose boards are made otherwise."""
    kept = brief.making.model_dump(mode="json")
    return brief.model_copy(update={"making": Making.model_validate({**kept, **making})})


FELL: Plain = {
    "id": "house/fell",
    "name": "Fell Boards",
    "currency": "USD",
    "euro_each": 0.5,
    "setup_cents": 1000,
    "area_cents_dm2": 200,
    "work_days": 4,
    "shipping": [{"name": "letter", "cents": 500, "days": 8}],
}
"""A board house of one's own, invented."""
