"""The kinds of things with their fields, so that the front end draws one form and one tray for all
of them.
"""

from typing import Any

from fastapi import APIRouter

from loquet.api.shapes import FieldView, KindView
from loquet.core.brief import kinds
from loquet.core.brief.any_thing import kind_name
from loquet.core.brief.thing import Thing

router = APIRouter(prefix="/api", tags=["kinds"])
SHARED = ("kind", "name", "board", "place", "rail", "brain", "line")
UNITS = {
    "mm": "mm",
    "mhz": "MHz",
    "khz": "kHz",
    "hz": "Hz",
    "ma": "mA",
    "mah": "mAh",
    "pf": "pF",
    "v": "V",
    "deg": "°",
}


@router.get("/kinds")
def list_kinds() -> list[KindView]:
    """Every kind there is, in the order of the tray."""
    return [describe_kind(model) for model in kinds.KINDS]


def describe_kind(model: type[Thing]) -> KindView:
    """A kind from its own schema."""
    schema = model.model_json_schema()
    fields = schema["properties"]
    return KindView(
        kind=kind_name(model),
        title=model.TITLE,
        group=model.GROUP,
        mark=model.MARK,
        about=" ".join((model.__doc__ or "").split()),
        word=model.WORD,
        edge=model.EDGE,
        usual={name: row["default"] for name, row in fields.items() if usual(name, row)},
        fields=[describe_field(name, row) for name, row in fields.items() if name not in SHARED],
    )


def usual(name: str, row: dict[str, Any]) -> bool:
    """Whether a field has a value of its own that a new thing starts with."""
    return "default" in row and name not in SHARED and row["default"] is not None


def describe_field(name: str, row: dict[str, Any]) -> FieldView:
    """A field from its part of the schema."""
    options = [o for o in row.get("anyOf", [row]) if o.get("type") != "null"]
    inner = {**row, **options[0]}
    unit = UNITS.get(name.rpartition("_")[2], "")
    title = row.get("title", name)
    own = title.lower() != name.replace("_", " ")
    words = title if own else name.replace("_", " ")
    words = words.removesuffix(f" {name.rpartition('_')[2]}") if unit else words
    return FieldView(
        name=name,
        title=words[:1].upper() + words[1:],
        what=what_of(name, inner),
        choices=[str(choice) for choice in inner.get("enum", [])],
        numbers=inner.get("type") in ("integer", "number"),
        low=inner.get("minimum", inner.get("exclusiveMinimum")),
        high=inner.get("maximum"),
        unit=unit,
        empty="anyOf" in row,
        help=inner.get("description", ""),
        when=inner.get("when", {}),
    )


def what_of(name: str, row: dict[str, Any]) -> Any:
    """Which control of the form shows a field."""
    if name == "part":
        return "part"
    if "enum" in row:
        return "choice"
    plain = {"boolean": "yes or no", "integer": "whole", "number": "number"}
    return plain.get(str(row.get("type")), "text")
