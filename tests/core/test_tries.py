"""Several arrangements of one board: each whole, the first one what it was before, a person's seats
in all of them, and ranked as said.
"""

import pytest
from pydantic import ValidationError

from loquet.core.brief.seats import fixed_seats
from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date
from loquet.core.redoing.tries import Try, figures_of, tried, tries_key
from loquet.core.reviewing import review
from tests.editing import edit, refused

FINE = Try(number=1, open_links=0, islands=1, stops=0, length_mm=100, vias=10, pieces=50)


@pytest.fixture(scope="module")
def second(finished: Design, library: Library) -> Design:
    return tried(finished, library, "main", 2)


def seats(design: Design) -> dict[str, tuple[int, int, int]]:
    return {p.role: (p.x_nm, p.y_nm, p.turn_deg) for p in slice_of(design.placement).parts}


def test_the_first_arrangement_is_the_usual_one(finished: Design, library: Library) -> None:
    """Nothing is noted for it, and the bytes are the same."""
    assert tried(finished, library, "main", 1) == finished
    assert finished.with_arrangement("main", 3).with_arrangement("main", 1) == finished


def test_another_arrangement_is_another_whole_board(
    finished: Design, second: Design, library: Library
) -> None:
    """Parts stand elsewhere, what the brief places does not; nothing is open, and nothing is
    stale.
    """
    before, after = seats(finished), seats(second)
    moved = {role for role in before if before[role] != after[role]}
    assert "chip" in moved
    assert moved & set(fixed_seats(finished.brief, "main")) == set()
    assert stale_slices(second) == ()
    assert [f for f in review(second, library) if f.severity == "stop"] == []
    assert tried(finished, library, "main", 2) == second


def test_figures_are_those_of_the_board(second: Design, library: Library) -> None:
    """Length by summing the tracks in mm, and the vias without those that only stitch the pour."""
    found, routing = figures_of(second, library, "main"), slice_of(second.routing)
    length = sum(abs(complex(t.x1_nm - t.x2_nm, t.y1_nm - t.y2_nm)) for t in routing.tracks) / 1e6
    assert found.length_mm == pytest.approx(length, abs=0.01)
    assert found.vias == len(routing.vias)
    assert (found.number, found.open_links, found.islands, found.stops) == (2, 0, 1, 0)
    assert found.pieces == len(routing.tracks)


def test_a_part_put_by_hand_stays_in_every_arrangement(finished: Design, library: Library) -> None:
    """Moved by half a millimetre, it is there in the third one too."""
    free = next(p for p in slice_of(finished.placement).parts if not p.locked)
    x, y = free.x_nm / 1e6 + 0.5, free.y_nm / 1e6
    moved = edit(finished, kind="seat-part", role=free.role, x_mm=x, y_mm=y, turn_deg=0)
    third = tried(moved, library, "main", 3)
    assert seats(third)[free.role] == (free.x_nm + 500_000, free.y_nm, 0)


@pytest.mark.parametrize(
    "worse",
    [
        {"open_links": 1},
        {"islands": 2},
        {"stops": 1},
        {"vias": 14},
        {"length_mm": 111},
        {"pieces": 51},
        {"number": 2},
    ],
)
def test_whole_boards_come_first_and_then_short_ones(worse: dict[str, int]) -> None:
    """A via counts as 3 mm: eleven millimetres more are worse than three vias fewer are better."""
    other = FINE.model_copy(update=worse)
    assert FINE.rank < other.rank
    assert FINE.model_copy(update={"length_mm": 111, "vias": 7}).rank > FINE.rank
    assert FINE.model_copy(update={"length_mm": 108, "vias": 7}).rank < FINE.rank
    assert other.model_copy(update={"open_links": 2}).rank > FINE.rank


def test_tries_belong_to_a_state_of_the_design(finished: Design, second: Design) -> None:
    """Whichever is taken they are the same ones; a drawn net or a part put by hand makes them
    old.
    """
    key = tries_key(finished, "main")
    assert tries_key(second, "main") == key
    kept = edit(finished, kind="keep-nets", board="main", nets=["BUTTON_RED"])
    part = next(p for p in slice_of(finished.placement).parts if not p.locked)
    moved = edit(finished, kind="seat-part", role=part.role, x_mm=1, y_mm=1, turn_deg=0)
    drops = edit(finished, kind="set-tear-drops", board="main", wanted=True)
    assert len({key, *(tries_key(d, "main") for d in (kept, moved, drops))}) == 4


def test_an_arrangement_is_taken_by_an_edit(finished: Design, library: Library) -> None:
    """Placing is stale then, and makes the very board that was tried; a board that is renamed or
    removed takes its choice along.
    """
    wanted = edit(finished, kind="choose-arrangement", board="main", number=2)
    assert stale_slices(wanted) == ("placement", "routing", "pour")
    assert seats(bring_up_to_date(wanted, library, "placement")) == seats(
        tried(finished, library, "main", 2)
    )
    renamed = edit(wanted, kind="rename-board", name="main", new_name="front")
    assert renamed.choices.arrangements == {"front": 2}
    with refused("no board 'attic'"):
        edit(finished, kind="choose-arrangement", board="attic", number=2)
    for number in (0, 9):
        with pytest.raises(ValidationError):
            edit(finished, kind="choose-arrangement", board="main", number=number)
