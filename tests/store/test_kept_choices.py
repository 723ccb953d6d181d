"""What a maker chose at Brief and Pins outlives undo, redo and a new session."""

from datetime import UTC, datetime

import pytest
from sqlalchemy import delete
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.edits import EDITS, apply
from loquet.demo.scenario import DEMO_BRIEFS, demo_brief
from loquet.demo.seeding import reset, seed
from loquet.store.designs import (
    all_projects,
    commit_version,
    create_project,
    head_of,
    load_design,
    redo,
    undo,
)
from loquet.store.tables import ProjectRow

NOW = datetime(2026, 11, 24, tzinfo=UTC)
EDITS_MADE = (
    {"kind": "set-scheme", "scheme": {"name": "mixed", "direct": ["button:menu"]}},
    {"kind": "set-chords", "chords": {"rule": "own", "groups": [["button:menu", "button:mark"]]}},
    {"kind": "lock-pin", "signal": "button:menu", "pin": "6"},
    {"kind": "change-thing", "name": "chip", "changes": {"part": "stm32f072rbt6"}},
)


def test_every_edit_can_be_taken_back_and_forth(session: Session) -> None:
    project = create_project(session, demo_brief("ridge-handset"), "tester", NOW)
    states = [load_design(session, head_of(session, project).version)]
    for fields in EDITS_MADE:
        head = head_of(session, project)
        edit = EDITS.validate_python(fields)
        states.append(apply(states[-1], edit))
        commit_version(session, head.revision, states[-1], edit.label, "tester", NOW)
        session.flush()
    assert states[3].choices.pin_locks == {"button:menu": "6"}
    assert states[4].choices.pin_locks == {}
    for state in reversed(states[:-1]):
        undo(session, project)
        session.flush()
        assert load_design(session, head_of(session, project).version) == state
    for state in states[1:]:
        redo(session, project)
        session.flush()
        assert load_design(session, head_of(session, project).version) == state


def test_all_demo_projects_are_seeded_once_and_given_back(
    factory: sessionmaker[Session], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("loquet.demo.seeding.sessions", lambda: factory)
    seed()
    seed()
    with factory() as opened:
        demos = [p.demo for p in all_projects(opened) if p.demo]
        assert sorted(demos) == sorted(DEMO_BRIEFS)
        first = next(p for p in all_projects(opened) if p.demo == "star-handset")
        assert load_design(opened, head_of(opened, first.id).version).brief == demo_brief(
            "star-handset"
        )
    with factory.begin() as opened:
        head = head_of(opened, first.id)
        changed = apply(load_design(opened, head.version), EDITS.validate_python(EDITS_MADE[0]))
        commit_version(opened, head.revision, changed, "changed", "tester", NOW)
    reset()
    with factory() as opened:
        again = next(p for p in all_projects(opened) if p.demo == "star-handset")
        assert load_design(opened, head_of(opened, again.id).version).brief == demo_brief(
            "star-handset"
        )
    with factory.begin() as opened:
        opened.execute(delete(ProjectRow).where(ProjectRow.demo != ""))
