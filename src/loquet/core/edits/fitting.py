"""What a person arranged is exactly what is wanted: a slice that fitted before a change by hand
fits after it.
"""

from typing import Literal

from loquet.core.design import Design
from loquet.core.freshness import inputs_digest, stale_subjects
from loquet.core.pipeline import MADE

ByHand = Literal["placement", "routing"]


def fitting(before: Design, after: Design, name: ByHand, board: str) -> Design:
    """The design after a change by hand, its slice of a board taken as it stands for what is wanted
    now, where it fitted before.
    """
    if (name, board) in stale_subjects(before) or board not in getattr(after, name):
        return after
    made_from = inputs_digest(after, name, board)
    kept = MADE[name](made_from=made_from, value=getattr(after, name)[board].value)
    return after.with_made(name, board, kept)
