"""What several tests of the core stand on."""

import pytest

from loquet.core.board import BoardView
from loquet.core.design import Design
from loquet.core.library import Library
from tests.core.plain_boards import empty_board
from tests.stacks import pouched


@pytest.fixture(scope="session")
def plain(finished: Design, library: Library) -> BoardView:
    """A board with nothing on it."""
    return empty_board(finished, library)


@pytest.fixture(scope="session")
def pouch(library: Library) -> Design:
    """A soft cell behind a board, with a button and a screw."""
    return pouched(library)
