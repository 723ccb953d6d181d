"""Addressable lights in a chain."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Duty, KitItem, Thing


class LightChain(Thing):
    """Addressable lights in a chain: on one timed line, or on a clocked pair."""

    GROUP = "shows"
    TITLE = "Light chain"
    WORD = "lights"
    MARK = "chain"
    DIMMED = True
    LEAST_V = 3.7  # of lights for 5 V; from memory of their data sheets
    DUTY = Duty(
        0.25, 0.02, 0.02, "a quarter of full white in play; 1 mA a light when dark; assumed"
    )

    kind: Literal["light-chain"] = "light-chain"
    count: Annotated[int, Field(ge=1, le=256)] = 8
    wires: Literal["one timed", "two clocked"] = "one timed"

    def bodies(self) -> tuple[Body, ...]:
        """The connector of the chain."""
        ways = 3 if self.wires == "one timed" else 4
        return (Body(part=f"wire-plug-2.5-{ways}"),)

    def current_ma(self) -> float:
        """60 mA a light at full white; from memory of such lights."""
        return 60.0 * self.count

    def kit(self) -> tuple[KitItem, ...]:
        """The lights with their lead."""
        return (
            KitItem(
                "sound and shows",
                f"chain of {self.count} addressable lights, {self.wires}",
                1,
                self.name,
            ),
            KitItem(
                "leads and cables",
                f"lead with a plug half for {3 if self.wires == 'one timed' else 4} pins at 2.5 mm"
                " (sockets, keyed), to the lights",
                1,
                f"lead of {self.name}",
            ),
        )
