"""Reading a brief from bytes that may be anything: one sentence, the place, and the way out."""

import json
import math
from typing import Any

from pydantic import ValidationError

from loquet.core.brief.first import present_from_first
from loquet.core.brief.model import Brief
from loquet.core.brief.sense import MOST_TOLD, BriefError, all_at_once, check_sense

LARGEST_BYTES = 1_000_000
TAGGED = ("outline",)
FIRST, PRESENT = "loquet-brief-1", "loquet-brief-2"


def read_brief(data: bytes, where: str = "the brief") -> Brief:
    """The brief that `data` (UTF-8 JSON) holds; raises BriefError naming the place and the way
    out.
    """
    if len(data) > LARGEST_BYTES:
        raise BriefError(
            where,
            f"is {len(data) / 1e6:.1f} MB large",
            "A brief is at most 1 MB; check that this is the right file.",
        )
    return brief_from_plain(parse_json(data, where))


def parse_json(data: bytes, where: str) -> Any:
    """The plain JSON value, or a BriefError with the line where reading failed."""
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError as error:
        raise BriefError(
            f"{where}, byte {error.start}", "is not UTF-8 text", "Save the file as UTF-8."
        ) from None
    if "\0" in text:
        raise BriefError(where, "holds a character that is no text", "Save it as plain UTF-8 text.")
    try:
        found = json.loads(text, parse_constant=refuse_constant, object_pairs_hook=refuse_twice)
        json.dumps(
            found, ensure_ascii=False
        ).encode()  # JSON can spell half of a character, which nothing can store or print
        return found
    except UnicodeEncodeError:
        raise BriefError(
            where,
            "holds half of a character (a lone surrogate)",
            "Write the character whole, or take it out.",
        ) from None
    except json.JSONDecodeError as error:
        raise BriefError(
            f"{where}, line {error.lineno}, column {error.colno}",
            f"is not JSON ({error.msg})",
            "Mend the JSON at that place.",
        ) from None
    except RecursionError:
        raise BriefError(
            where,
            "is nested too deeply to be read",
            "Write it flat, as docs/brief.schema.json says.",
        ) from None
    except ValueError as error:
        raise BriefError(
            where, str(error)[:120], "Use ordinary finite numbers, and each name once."
        ) from None


def refuse_constant(name: str) -> float:
    """JSON has no NaN or infinity."""
    raise ValueError(f"holds {name}, which JSON does not have")


def refuse_twice(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    """An object; a key that stands twice is refused, since one of the two would be lost."""
    plain: dict[str, Any] = {}
    for key, value in pairs:
        if key in plain:
            raise ValueError(f"holds the key '{key[:40]}' twice")
        if isinstance(value, float) and not math.isfinite(value):
            raise ValueError(f"holds a number too large at '{key[:40]}'")
        plain[key] = value
    return plain


def brief_from_plain(plain: Any) -> Brief:
    """The brief in plain JSON values, of this format or of the first; raises BriefError."""
    if not isinstance(plain, dict):
        raise BriefError(
            "the brief", "is not a JSON object", "Start from examples/dusk-remote.brief.json."
        )
    said = plain.get("format", FIRST if "controls" in plain else PRESENT)
    if said not in (FIRST, PRESENT):
        raise BriefError("format", f"is {shown_value(said)}", f"Expected: '{PRESENT}'.")
    first = said == FIRST
    try:
        found = present_from_first(plain) if first else plain
    except ValidationError as error:
        raise problems(error, plain) from None
    try:
        brief = Brief.model_validate(found)
    except ValidationError as error:
        raise problems(error, found) from None
    check_sense(brief)
    return brief


def problems(error: ValidationError, plain: dict[str, Any]) -> BriefError:
    """All schema errors, each in a sentence with its place."""
    rows = error.errors(include_url=False)
    inner = [row["loc"] for row in rows]
    own = [
        row
        for row in rows  # a row of things that is too short is so for what is wrong inside it
        if row["type"] != "too_short" or not any(deeper(loc, row["loc"]) for loc in inner)
    ]
    return all_at_once([problem(row, plain) for row in own[:MOST_TOLD]])


def deeper(loc: tuple[int | str, ...], outer: tuple[int | str, ...]) -> bool:
    """Whether a place lies inside another one."""
    return len(loc) > len(outer) and loc[: len(outer)] == outer


def problem(first: Any, plain: dict[str, Any]) -> BriefError:
    """One schema error, in a sentence with its place."""
    place = place_of(first["loc"], plain)
    kind, message = first["type"], first["msg"]
    if kind == "missing":
        return BriefError(place, "is missing", "Add it; docs/brief.schema.json says what it holds.")
    if kind == "extra_forbidden":
        return BriefError(
            place,
            "is not a field of a brief",
            "Take it out, or check its spelling against docs/brief.schema.json.",
        )
    given = shown_value(first.get("input"))
    expected = message[0].lower() + message[1:]
    return BriefError(place, f"is {given}", f"Expected: {expected.removeprefix('input ')}.")


def place_of(location: tuple[int | str, ...], plain: Any) -> str:
    """`('things', 2, 'x_mm')` as `things[2] 'dome' x_mm`: only steps that are in the values, things
    by their names.
    """
    text, value = "", plain
    for step in location:
        if isinstance(step, int):
            text += f"[{step}]"
            value = value[step] if isinstance(value, list | tuple) and step < len(value) else None
            named = value.get("name") if isinstance(value, dict) else None
            text += (
                f" '{named[:24]}'" if isinstance(named, str) and text.startswith("things") else ""
            )
        elif not is_tag(step, value):
            spaced = " " if text.endswith("'") else "."
            text += f"{spaced}{step}" if text else step
            value = value.get(step) if isinstance(value, dict) else None
    return text or "the brief"


def is_tag(step: str, value: Any) -> bool:
    """Whether a step only names the kind of a value, which no reader of the file has written as a
    step.
    """
    return isinstance(value, dict) and step not in value and value.get("kind") == step


def shown_value(value: Any) -> str:
    """A given value, short enough for a sentence."""
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 40 else text[:37] + "..."
