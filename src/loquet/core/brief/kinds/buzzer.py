"""A sounder."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Duty, Thing


class Buzzer(Thing):
    """A sounder driven by a timer; Loquet places it where it has no place."""

    GROUP = "sounds"
    TITLE = "Sounder"
    WORD = "buzzer"
    MARK = "sound"
    DUTY = Duty(0.05, 0.0, 0.0, "sounds a twentieth of the time; assumed")
    LEFT_OUT_CENTS = 60.0

    kind: Literal["buzzer"] = "buzzer"
    part: PartId = "buzzer-9x9-magnetic"

    def bodies(self) -> tuple[Body, ...]:
        """One sounder."""
        return (Body(part=self.part, kinds=("buzzer",)),)
