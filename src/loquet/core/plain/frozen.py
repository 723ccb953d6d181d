"""The base of every saved value: immutable, strict about unknown fields, canonical as JSON."""

import hashlib
import json
from typing import Any

from pydantic import BaseModel, ConfigDict


class Frozen(BaseModel):
    """An immutable value that refuses fields it does not know, NaN and infinity."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def canonical(value: Any) -> str:
    """JSON text that is the same for the same value: sorted keys, no spaces."""
    return json.dumps(
        value, sort_keys=True, separators=(",", ":"), ensure_ascii=False, allow_nan=False
    )


def digest_of(value: Frozen | dict[str, Any] | list[Any] | str) -> str:
    """SHA-256, in hexadecimal, of the canonical JSON of a value."""
    plain = value.model_dump(mode="json") if isinstance(value, Frozen) else value
    return digest_of_text(canonical(plain))


def digest_of_text(text: str) -> str:
    """SHA-256, in hexadecimal, of a text."""
    return hashlib.sha256(text.encode()).hexdigest()
