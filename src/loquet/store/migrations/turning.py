"""One stored version from the shape of before to things on boards; what was fresh stays fresh."""

import json
from dataclasses import dataclass
from typing import Any

from loquet.core.brief import Brief
from loquet.core.brief.first import present_from_first
from loquet.core.design import DEVICE, SLICES, Design
from loquet.core.freshness import inputs_digest
from loquet.core.plain.frozen import canonical, digest_of

FIRST = "loquet-brief-1"
NOT_DRAWN = ("quantity", "wanted_by", "name", "purpose")
BEFORE = {
    "pins": (),
    "circuit": ("pins",),
    "placement": ("circuit",),
    "routing": ("circuit", "placement"),
    "pour": ("circuit", "placement", "routing"),
}
Plain = dict[str, Any]


@dataclass(frozen=True)
class Turned:
    """The slices of a turned version, by name and subject, and the contents that are new."""

    slices: Plain
    contents: dict[str, str]


def turn_version(slices: Plain, contents: dict[str, str], known: dict[str, Turned]) -> Turned:
    """A version as the present application stores it; versions of the same slices are turned
    once.
    """
    key = canonical(slices)
    if key not in known:
        known[key] = turned(slices, contents)
    return known[key]


def turned(slices: Plain, contents: dict[str, str]) -> Turned:
    """The work of it."""
    parts: Plain = {n: json.loads(contents[d]) if d else None for n, d in slices.items()}
    first = parts["brief"]
    if first.get("format") != FIRST:
        raise RuntimeError("a stored brief is of no format that is known here")
    brief = Brief.model_validate(present_from_first(first))
    fresh = fresh_before(parts)
    design = Design.model_validate(
        {"brief": brief, "choices": parts["choices"], **made_by_subject(brief, parts)}
    )
    for name in SLICES:
        for subject, made in getattr(design, name).items():
            if name in fresh:
                update = {"made_from": inputs_digest(design, name, subject)}
                design = design.with_made(name, subject, made.model_copy(update=update))
    return kept(design)


def fresh_before(parts: Plain) -> set[str]:
    """Slices that were made from what stood before them, as the application of before told it."""
    fresh: set[str] = set()
    for name in SLICES:
        made = parts.get(name)
        stands = all(other in fresh for other in BEFORE[name])
        if made is None or not stands or made["made_from"] != digest_before(parts, name):
            break
        fresh.add(name)
    return fresh


def digest_before(parts: Plain, name: str) -> str:
    """The digest of a slice's inputs as it was taken then."""
    choices = parts["choices"]
    inputs: Plain = {"brief": {k: v for k, v in parts["brief"].items() if k not in NOT_DRAWN}}
    for other in BEFORE[name]:
        made = parts.get(other)
        inputs[other] = digest_of(made["value"]) if made else None
    if name == "pins":
        inputs |= {"locks": choices["pin_locks"], "targets": choices["pin_targets"]}
    if name == "placement":
        inputs["seats"] = choices["part_seats"]
    if name in ("routing", "pour"):
        inputs["house"] = choices["house"]
    return digest_of(inputs)


def made_by_subject(brief: Brief, parts: Plain) -> Plain:
    """Slices under their subjects; components learn which thing and board they belong to."""
    board = brief.boards[0].name
    subjects = {"pins": brief.brain.name if brief.brain else "", "circuit": DEVICE}
    found: Plain = {}
    for name in SLICES:
        made = parts.get(name)
        if made is None:
            continue
        if name == "circuit":
            owned = [component(brief, row, board) for row in made["value"]["components"]]
            made = {**made, "value": {**made["value"], "components": owned}}
        found[name] = {subjects.get(name, board): made}
    return found


def component(brief: Brief, row: Plain, board: str) -> Plain:
    """A component of before as the present one."""
    owners = {thing.role(b.piece): thing for thing in brief.things for b in thing.bodies()}
    owner = owners.get(row["role"]) or owners.get(row.get("near_role", ""))
    own = row["role"] in owners
    return {
        **row,
        "board": board,
        "thing": owner.name if owner else "",
        "printed": owner.name if own and owner and owner.kind == "button" else "",
        "bare": row["part"] == "test-point-round",
        "polar": own and owner is not None and owner.kind == "cells",
    }


def kept(design: Design) -> Turned:
    """Slices with their digests and contents."""
    slices: Plain = {}
    contents: dict[str, str] = {}

    def keep(value: Any) -> str:
        plain = value.model_dump(mode="json")
        digest = digest_of(plain)
        contents[digest] = canonical(plain)
        return digest

    slices["brief"], slices["choices"] = keep(design.brief), keep(design.choices)
    for name in SLICES:
        slices[name] = {s: keep(made) for s, made in getattr(design, name).items()}
    return Turned(slices, contents)
