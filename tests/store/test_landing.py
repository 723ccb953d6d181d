"""What a job made does not lie over what a person did while it ran."""

from datetime import UTC, datetime
from typing import Any

import pytest
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.design import Design
from loquet.jobs.runner import Jobs
from loquet.jobs.works import route_nets
from loquet.store.designs import commit_version, create_project, head_of, load_design
from tests.store.waiting import ended


class Meanwhile:
    """A pool whose answer comes after something else has been done."""

    def __init__(self, answer: str, first: Any) -> None:
        self.text, self.first = answer, first

    def submit(self, *_: object) -> "Meanwhile":
        return self

    def wait(self, seconds: float) -> bool:
        return True

    def news(self) -> list[Any]:
        return []

    def end(self) -> None:
        pass

    def close(self) -> None:
        pass

    def answer(self) -> str:
        self.first()
        return self.text


@pytest.mark.parametrize("cut", [True, False])
def test_a_track_that_was_cut_meanwhile_stays_cut(
    factory: sessionmaker[Session], finished: Design, cut: bool
) -> None:
    """One track less, committed while nets are routed: the job is refused in words; without the cut
    it lands.
    """
    now = datetime.now(UTC)
    with factory.begin() as session:
        project = create_project(session, finished.brief, "Ottilie", now)
        at = head_of(session, project)
        commit_version(session, at.revision, finished, "made", "Ottilie", now)
        revision = at.revision.id
    routing = finished.routing["main"].value

    def with_tracks(tracks: Any) -> Design:
        old = finished.routing["main"]
        changed = old.model_copy(update={"value": routing.model_copy(update={"tracks": tracks})})
        return finished.with_made("routing", "main", changed)

    def cutting() -> None:
        if cut:
            with factory.begin() as session:
                at = head_of(session, project, lock=True)
                design = with_tracks(routing.tracks[1:])
                commit_version(session, at.revision, design, "cut", "Ottilie", now)

    answer = with_tracks(routing.tracks[2:]).routing["main"].model_dump_json()
    jobs = Jobs(factory, Meanwhile(answer, cutting))
    work = route_nets(factory, project, "main", (routing.tracks[0].net,), "Ottilie")
    row = ended(factory, jobs.start(project, revision, "nets", work))
    jobs.close()
    with factory() as session:
        left: Design = load_design(session, head_of(session, project).version)
    assert row.state == ("refused" if cut else "done")
    assert ("changed by hand while this ran" in row.message) is cut
    wanted = routing.tracks[1:] if cut else routing.tracks[2:]
    assert left.routing["main"].value.tracks == wanted
