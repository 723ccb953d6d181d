"""A thing of any kind, as a field: read by the kind that it names, written whole, described by all
kinds that there are.
"""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from loquet.core.brief import kinds
from loquet.core.brief.thing import Thing


def read_thing(value: Any) -> Thing:
    """A thing from plain values, by its kind; raises what validation raises."""
    if isinstance(value, Thing):
        return value
    if not isinstance(value, Mapping):
        raise PydanticCustomError("thing", "a thing is an object with a kind")
    model = kinds.kind_named(str(value.get("kind", "")))
    if model is None:
        known = ", ".join(sorted(kind_name(k) for k in kinds.KINDS))
        raise PydanticCustomError(
            "kind", "one of the kinds {known}", {"known": known, "given": str(value.get("kind"))}
        )
    return model.model_validate(dict(value))


def kind_name(model: type[Thing]) -> str:
    """The name of a kind."""
    return str(model.model_fields["kind"].default)


class ByKind:
    """The marker that makes a field take any kind."""

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """Read and write by the thing's own kind."""
        return core_schema.no_info_plain_validator_function(
            read_thing,
            serialization=core_schema.plain_serializer_function_ser_schema(
                write_thing, info_arg=True
            ),
        )

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        """One of all kinds."""
        return {
            "oneOf": [handler(model.__pydantic_core_schema__) for model in kinds.KINDS],
            "title": "Thing",
        }


def write_thing(thing: Thing, info: core_schema.SerializationInfo) -> dict[str, Any]:
    """All fields of a thing."""
    return thing.model_dump(mode=info.mode)


if TYPE_CHECKING:
    AnyThing = Thing
else:
    AnyThing = Annotated[Thing, ByKind]
