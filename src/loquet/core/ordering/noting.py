"""Orders that a maker sends by hand: what their days say of them."""

from collections.abc import Mapping
from datetime import date
from typing import Any

NOTED_STATES = ("noted", "being made", "on the road", "should be there")


def noted_state(quoted: Mapping[str, Any], placed_on: date, today: date) -> tuple[str, str]:
    """State and a sentence for an order by the days that were quoted: nobody here has asked the
    house.
    """
    ready, arrives = (date.fromisoformat(quoted[name]) for name in ("ready_on", "arrives_on"))
    expected = f"expected on {arrives} by its own days"
    if today >= arrives:
        return NOTED_STATES[3], f"It was {expected}. Count what came."
    if today >= ready:
        return NOTED_STATES[2], f"It is {expected}."
    if today > placed_on:
        return NOTED_STATES[1], f"Ready on {ready}, {expected}."
    return NOTED_STATES[0], f"Send the files or the cart yourself; it is {expected}."
