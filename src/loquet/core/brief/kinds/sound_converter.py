"""A digital sound converter."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class SoundConverter(Thing):
    """A chip that makes sound of a digital sound bus."""

    GROUP = "sounds"
    TITLE = "Sound converter"
    WORD = "sound"
    MARK = "sound"

    kind: Literal["sound-converter"] = "sound-converter"

    def bodies(self) -> tuple[Body, ...]:
        """A small chip."""
        return (Body(part="sound-converter"),)
