"""Edits for tests: made, refused for a reason, and where things then lie."""

import re
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pytest

from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply


def edit(design: Design, **fields: Any) -> Design:
    return apply(design, EDITS.validate_python(fields))


@contextmanager
def refused(why: str) -> Iterator[None]:
    """An edit that is refused for this reason, and says what to do in another sentence."""
    with pytest.raises(EditRefused) as caught:
        yield
    assert re.search(why, caught.value.why), caught.value.why
    assert caught.value.way_out


def spot(design: Design, name: str) -> tuple[float, float]:
    place = design.brief.thing(name).place
    assert place is not None
    return place.x_mm, place.y_mm
