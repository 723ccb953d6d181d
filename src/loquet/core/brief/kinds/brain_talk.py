"""A serial line between two brains."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import OtherName
from loquet.core.brief.thing import Thing


class BrainTalk(Thing):
    """Two lines, one each way, between the brain that reads this and another one; no part, and no
    place of its own.
    """

    GROUP = "brains"
    TITLE = "Serial line between two brains"
    WORD = "talk"
    MARK = "plug"
    BRAIN_FIELDS = ("brain", "other")

    kind: Literal["brain-talk"] = "brain-talk"
    part: Annotated[str, Field(max_length=0)] = ""
    other: Annotated[OtherName, Field(description="the brain at the other end")] = ""
