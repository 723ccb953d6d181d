"""A digital sound converter."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, KitItem, Thing


class SoundConverter(Thing):
    """A chip that makes sound of a digital sound bus."""

    GROUP = "sounds"
    TITLE = "Sound converter"
    WORD = "sound"
    MARK = "sound"

    kind: Literal["sound-converter"] = "sound-converter"
    part: PartId = "sound-converter"

    def bodies(self) -> tuple[Body, ...]:
        """A small chip."""
        return (Body(part=self.part, kinds=("sound converter",)),)

    def kit(self) -> tuple[KitItem, ...]:
        """The line lead."""
        return (
            KitItem(
                "leads and cables",
                "lead with a plug half for 3 pins at 2.0 mm (sockets, keyed), left, ground, right",
                1,
                f"line output of {self.name}",
            ),
        )
