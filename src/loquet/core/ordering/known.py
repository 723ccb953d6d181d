"""How the prices of a house or supplier are known."""

from typing import Literal

Known = Literal["simulated", "typed", "learnt"]
"""`simulated` ones ship with Loquet and are invented; the others are somebody's own."""
SAID: dict[Known, str] = {
    "simulated": "simulated, invented",
    "typed": "typed in the workshop",
    "learnt": "learnt from its quotes",
}
