"""What long work tells while it runs: words and a share, over whatever way joins it to the one who
asked.
"""

from collections.abc import Callable
from typing import NamedTuple


class Told(NamedTuple):
    """What is being done, and how much of it is done, from 0 to 1; a picture of the work as it
    lies, as JSON, and the last state that can be kept, where there is one.
    """

    doing: str
    share: float
    picture: str = ""
    keep: str = ""


Tell = Callable[[Told], bool]
