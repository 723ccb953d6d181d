"""Demo projects are made in the background, and what a person has changed is left alone."""

from datetime import UTC, datetime

import pytest
from sqlalchemy import delete
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.edits import EDITS, apply
from loquet.core.freshness import stale_slices
from loquet.demo import making
from loquet.demo.scenario import demo_brief
from loquet.demo.seeding import AUTHOR
from loquet.jobs.runner import Jobs
from loquet.store.designs import all_projects, commit_version, create_project, head_of, load_design
from loquet.store.releases import latest_release
from loquet.store.tables import ProjectRow
from tests.store.test_kept_work import Instant

NOW = datetime(2026, 12, 1, tzinfo=UTC)


def test_each_is_made_once_and_changed_ones_are_left_alone(
    factory: sessionmaker[Session], monkeypatch: pytest.MonkeyPatch
) -> None:
    """Two demo projects, one of them with a key moved by a person: the first ends with files that
    are written and proven, the second is as it was; at the next start nothing waits.
    """
    brief = demo_brief("dome-pod")
    with factory.begin() as session:
        session.execute(delete(ProjectRow).where(ProjectRow.demo != ""))
        first, other = (create_project(session, brief, AUTHOR, NOW, demo=d) for d in "ab")
        own = create_project(session, brief, AUTHOR, NOW)
        head = head_of(session, other)
        edit = EDITS.validate_python({"kind": "set-quantity", "quantity": 3})
        changed = apply(load_design(session, head.version), edit)
        commit_version(session, head.revision, changed, "To make", "maker", NOW)
    with factory() as session:
        waiting = [p.id for p in all_projects(session) if making.waits(session, p)]
    assert waiting == [first]
    monkeypatch.setattr(making, "LocalPool", lambda _: Instant())
    jobs = Jobs(factory, Instant())
    making.make_all(jobs)
    jobs.close()
    with factory.begin() as session:
        head = head_of(session, first)
        assert stale_slices(load_design(session, head.version)) == ()
        release = latest_release(session, head.revision.id)
        assert release is not None
        assert release.version_id == head.version.id
        assert not any(making.waits(session, p) for p in all_projects(session))
        for untouched in (other, own):
            design = load_design(session, head_of(session, untouched).version)
            assert not design.pins
        session.execute(delete(ProjectRow).where(ProjectRow.id.in_((first, other, own))))
