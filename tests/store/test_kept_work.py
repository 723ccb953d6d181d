"""What a job keeps: the best of several arrangements, and the last complete state of a routing that
was stopped.
"""

import json
import time
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

import pytest
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.design import Design
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.redoing.tries import Try, figures_of, tried, tries_key
from loquet.core.routing import RoutingStopped
from loquet.jobs.making import make_slice, make_try
from loquet.jobs.runner import Jobs, Ticket
from loquet.jobs.telling import Told
from loquet.jobs.works import make_slices, try_arrangements
from loquet.store.answers import answer_of
from loquet.store.designs import create_project, head_of, load_design
from tests.making import Plain
from tests.store.waiting import ended


class Instant:
    """A pool that answers at once, in this process."""

    def __init__(self, never: str = "", told: tuple[Told, ...] = ()) -> None:
        self.never, self.told = never, told

    def submit(self, function: Callable[..., Any], *arguments: object) -> "Instant.Call":
        return Instant.Call(self, function, arguments)

    def close(self) -> None:
        pass

    class Call:
        """A call; one for the slice named `never` has no end, and only tells."""

        def __init__(self, pool: "Instant", function: Callable[..., Any], arguments: Any) -> None:
            self.pool, self.function, self.arguments = pool, function, arguments
            self.endless = pool.never in arguments and pool.never != ""

        def wait(self, seconds: float) -> bool:
            time.sleep(0.01 if self.endless else 0)
            return not self.endless

        def news(self) -> list[Told]:
            return list(self.pool.told)

        def end(self) -> None:
            self.endless = False

        def answer(self) -> Any:
            return self.function(lambda seen: True, *self.arguments)


@pytest.fixture
def place(factory: sessionmaker[Session], brief: Any) -> tuple[int, int]:
    with factory.begin() as session:
        project = create_project(session, brief, "Ottilie", datetime.now(UTC))
        return project, head_of(session, project).revision.id


def head(factory: sessionmaker[Session], project: int) -> Design:
    with factory() as session:
        design: Design = load_design(session, head_of(session, project).version)
    return design


def test_the_best_of_four_lands_and_all_are_kept(
    factory: sessionmaker[Session], place: tuple[int, int], library: Library
) -> None:
    """From a bare brief: pins and circuit first; what lands is the one of the least rank, and it is
    what its number makes.
    """
    jobs = Jobs(factory, Instant())
    row = ended(
        factory,
        jobs.start(*place, "tries", try_arrangements(factory, place[0], "main", "Ottilie")),
        120,
    )
    assert row.state == "done"
    made = head(factory, place[0])
    assert stale_slices(made) == ()
    with factory() as session:
        shown: list[Plain] = json.loads(answer_of(session, tries_key(made, "main")) or "[]")
    figures = [Try(**one["figures"]) for one in shown]
    assert sorted(f.number for f in figures) == [1, 2, 3, 4]
    assert figures == sorted(figures, key=lambda f: f.rank)
    assert figures_of(made, library, "main") == figures[0]
    assert tried(made, library, "main", figures[0].number) == made
    assert f"number {figures[0].number} taken" in row.message
    for one in shown:
        assert len(one["picture"]["tracks"]) == one["figures"]["pieces"]
        assert len(one["picture"]["parts"]) == len(made.placement["main"].value.parts)
    jobs.close()


@pytest.mark.parametrize("complete", [True, False])
def test_a_stopped_routing_keeps_its_last_complete_state(
    factory: sessionmaker[Session], place: tuple[int, int], finished: Design, complete: bool
) -> None:
    """What stands before it is kept in any case; the routing only where it was complete, and then
    it is not stale.
    """
    text = finished.routing["main"].model_dump_json()
    picture = json.dumps({"board": "main", "tracks": [[0, 1, 2, 3, 4, 0.2]], "vias": []})
    told = Told("round 3", 0.5, picture, text if complete else "")
    jobs = Jobs(factory, Instant("routing", (told,)))
    job = jobs.start(*place, "everything", make_slices(factory, place[0], (), "Ottilie"))
    for _ in range(2000):
        ticket = jobs.ticket(job)
        if ticket and ticket.pictures:
            break
        time.sleep(0.01)
    assert ticket is not None
    assert ticket.picture == picture
    jobs.stop(job)
    row = ended(factory, job)
    assert row.state == "stopped"
    made = head(factory, place[0])
    assert stale_slices(made) == (("pour",) if complete else ("routing", "pour"))
    assert ("Board routed" in row.message) is complete
    assert "Parts placed" in row.message
    jobs.close()


class Ends:
    """A call that answers, raises, or goes on until it is ended; it has told a state to keep."""

    def __init__(self, what: str) -> None:
        self.what, self.ended, self.looks = what, False, 0

    def wait(self, seconds: float) -> bool:
        self.looks += 1
        return self.what != "endless" and self.looks > 1

    def news(self) -> list[Told]:
        return [Told("round 1", 0.5, "", "a state")]

    def end(self) -> None:
        self.ended = True

    def answer(self) -> str:
        if self.what == "raises":
            raise ZeroDivisionError
        return self.what


class Given:
    """A pool of calls made beforehand."""

    def __init__(self, *calls: Ends) -> None:
        self.calls = list(calls)

    def submit(self, function: Callable[..., Any], *arguments: object) -> Ends:
        return self.calls[int(str(arguments[0]))]

    def close(self) -> None:
        pass


def test_what_could_be_kept_is_forgotten_once_there_is_an_answer() -> None:
    """Else a stop of the next step would keep it in that one's place."""
    ticket = Ticket(1, "everything", Given(Ends("first")))
    assert ticket.compute(print, 0) == "first"
    assert ticket.kept == ""


def test_calls_beside_one_that_fails_or_is_stopped_are_ended() -> None:
    """None of them goes on for nobody, and what was told last is there to keep."""
    beside = Ends("endless")
    with pytest.raises(ZeroDivisionError):
        Ticket(1, "tries", Given(Ends("raises"), beside)).compute_all(print, [(0,), (1,)])
    assert beside.ended
    calls = Ends("endless"), Ends("endless")
    ticket = Ticket(1, "tries", Given(*calls))
    ticket.stop.set()
    with pytest.raises(RoutingStopped):
        ticket.compute_all(print, [(0,), (1,)])
    assert [call.ended for call in calls] == [True, True]
    assert ticket.kept == "a state"


def test_a_routing_tells_what_it_lays(finished: Design) -> None:
    """The pictures grow to the board that is kept, and a state that is said to be complete is one:
    nothing of it is open, and it is made from the same inputs.
    """
    seen: list[Told] = []

    def tell(told: Told) -> bool:
        seen.append(told)
        return True

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("loquet.jobs.making.PICTURE_EVERY_S", 0.0)
        text = make_slice(tell, finished.model_dump_json(), "routing", "main")
    assert text == finished.routing["main"].model_dump_json()
    pictures = [json.loads(one.picture) for one in seen if one.picture]
    assert len(pictures) > 20
    assert all(len(track) == 6 for track in pictures[-1]["tracks"])
    kept = [json.loads(one.keep) for one in seen if one.keep]
    assert kept
    assert all(one["made_from"] == finished.routing["main"].made_from for one in kept)
    assert all(one["value"]["open_links"] == [] for one in kept)


def test_a_try_says_why_it_cannot_be(finished: Design) -> None:
    """A board too small for its parts is a sentence, not an error."""
    board = finished.brief.boards[0]
    outline = board.outline.model_copy(update={"width_mm": 30.0, "height_mm": 20.0})
    small = finished.brief.model_copy(
        update={"boards": (board.model_copy(update={"outline": outline}),)}
    )
    design = finished.model_copy(update={"brief": small})
    answer = make_try(lambda told: True, design.model_dump_json(), "main", 1)
    assert "free place" in answer.sentence  # type: ignore[union-attr]
