"""What jobs do: make slices, and make a release.

The database is asked here; the computing is done in a process of its own.
"""

import json
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from sqlalchemy.orm import Session, sessionmaker

from loquet.core.design import SLICES, Design, SliceName, subjects_of
from loquet.core.edits.wire_edits import DrawTracks
from loquet.core.freshness import each_slice, stale_subjects
from loquet.core.library import Library
from loquet.core.pipeline import MADE, TITLES, StageRefused
from loquet.core.plain.frozen import digest_of
from loquet.core.planning.aiming import aims_key
from loquet.core.planning.pinning import ways_key
from loquet.core.redoing.tries import TRIES, Try, tries_key
from loquet.core.reviewing import review
from loquet.core.routing import RoutingStopped
from loquet.jobs.making import (
    Refusal,
    find_aims,
    find_ways,
    make_nets,
    make_package,
    make_slice,
    make_try,
    make_way,
)
from loquet.jobs.runner import Short, Ticket, Work
from loquet.store.answers import answer_of, keep_answer
from loquet.store.designs import commit_version, head_of, load_design
from loquet.store.logbook import open_cards
from loquet.store.releases import store_release

DONE = {
    "pins": "Pins solved",
    "circuit": "Circuit made",
    "placement": "Parts placed",
    "routing": "Board routed",
    "pour": "Ground poured",
}
SHARES: dict[SliceName, float] = {
    "pins": 1.0,
    "circuit": 0.2,
    "placement": 2.0,
    "routing": 8.0,
    "pour": 2.0,
}


Step = tuple[SliceName, str]
Slices = Mapping[str, Any]


def make_slices(
    factory: sessionmaker[Session], project_id: int, wanted: tuple[SliceName, ...], author: str
) -> Work:
    """Make these slices in order, and the stale ones before them (all stale ones where none is
    named).
    """

    def work(ticket: Ticket) -> str:
        with factory() as session:
            began = head_of(session, project_id).version
            design, before = load_design(session, began), began.slices
        last = max((SLICES.index(name) for name in wanted), default=len(SLICES) - 1)
        stale = stale_subjects(design)
        steps = [
            (name, subject)
            for name, subject in each_slice(design.brief)
            if SLICES.index(name) <= last and (name in wanted or (name, subject) in stale)
        ]
        total, done = sum(SHARES[name] for name, _ in steps), 0.0
        made: list[Step] = []
        try:
            for name, subject in steps:
                where = f" of {subject}" if len(subjects_of(design.brief, name)) > 1 else ""
                floor, ceiling = done / total, (done + SHARES[name]) / total
                ticket.say(f"making the {TITLES[name]}{where}", floor, ceiling)
                text = made_text(ticket, name, subject, design)
                design = design.with_made(name, subject, MADE[name].model_validate_json(text))
                done += SHARES[name]
                made.append((name, subject))
        except StageRefused as refused:
            if made:
                keep(factory, project_id, design, made, author, before)
            raise StageRefused(refused.stage, so_far(made, refused), refused.way_out) from None
        except RoutingStopped:
            if ticket.kept:
                design = design.with_made(
                    name, subject, MADE[name].model_validate_json(ticket.kept)
                )
                made.append((name, subject))
            if made:
                keep(factory, project_id, design, made, author, before)
            raise RoutingStopped(f"kept is: {words_of(made)}" if made else "") from None
        if not made:
            return "Everything is made already."
        ticket.say("keeping the result")
        return keep(factory, project_id, design, made, author, before) + "."

    return work


def route_nets(
    factory: sessionmaker[Session], project_id: int, board: str, nets: tuple[str, ...], author: str
) -> Work:
    """Route some nets of a board again; all others stay as they lie."""

    def work(ticket: Ticket) -> str:
        with factory() as session:
            began = head_of(session, project_id).version
            design, before = load_design(session, began), began.slices
        said = f"{', '.join(nets[:3])} routed"
        ticket.say(f"routing {', '.join(nets[:3])}")
        answer: Any = ticket.compute(make_nets, design.model_dump_json(), board, list(nets))
        if isinstance(answer, Refusal):
            raise StageRefused("routing", answer.sentence, "")
        made = MADE["routing"].model_validate_json(answer)
        with factory.begin() as session:
            head = head_of(session, project_id, lock=True)
            if not landing([("routing", board)], before, head.version.slices):
                raise changed_meanwhile("routing")
            onto: Design = load_design(session, head.version).with_made("routing", board, made)
            commit_version(session, head.revision, onto, said, author, datetime.now(UTC))
        return f"{said}."

    return work


def draw_through(
    factory: sessionmaker[Session], project_id: int, drawing: DrawTracks, author: str
) -> Work:
    """Draw where others lie: the wires and the ways that were led about them land as one
    version.
    """

    def work(ticket: Ticket) -> str:
        with factory() as session:
            began = head_of(session, project_id).version
            design, before = load_design(session, began), began.slices
        ticket.say("making way for what was drawn")
        answer: Any = ticket.compute(make_way, design.model_dump_json(), drawing.model_dump_json())
        if isinstance(answer, Refusal):
            raise StageRefused("routing", answer.sentence, "")
        text, yielding = answer
        made = MADE["routing"].model_validate_json(text)
        names = ", ".join(yielding[:3]) + (f" and {len(yielding) - 3} more" if yielding[3:] else "")
        said = f"{drawing.label}; {names or 'nothing'} gave way"
        with factory.begin() as session:
            head = head_of(session, project_id, lock=True)
            if not landing([("routing", drawing.board)], before, head.version.slices):
                raise changed_meanwhile("routing")
            onto: Design = drawing.apply(load_design(session, head.version))
            onto = onto.with_made("routing", drawing.board, made)
            commit_version(session, head.revision, onto, said, author, datetime.now(UTC))
        return f"{said}."

    return work


def try_arrangements(
    factory: sessionmaker[Session], project_id: int, board: str, author: str
) -> Work:
    """Several arrangements of a board side by side; the best one lands, the others are kept to look
    at.
    """
    before = make_slices(factory, project_id, ("circuit",), author)

    def work(ticket: Ticket) -> str:
        with factory() as session:
            design: Design = load_design(session, head_of(session, project_id).version)
        if any(name in ("pins", "circuit") for name, _ in stale_subjects(design)):
            before(ticket)
            with factory() as session:
                design = load_design(session, head_of(session, project_id).version)
        ticket.say(f"trying {TRIES} arrangements of {board}", 0.1)
        with factory() as session:
            began = dict(head_of(session, project_id).version.slices)
        text = design.model_dump_json()
        numbers = range(1, TRIES + 1)
        answers = ticket.compute_all(make_try, [(text, board, number) for number in numbers])
        made = [answer for answer in answers if not isinstance(answer, Refusal)]
        if not made:
            raise StageRefused("placement", answers[0].sentence, "")
        made.sort(key=lambda answer: Try(**answer["figures"]).rank)
        best = made[0]["figures"]["number"]
        shown = [{name: answer[name] for name in ("figures", "picture")} for answer in made]
        with factory.begin() as session:
            keep_answer(session, tries_key(design, board), json.dumps(shown))
            head = head_of(session, project_id, lock=True)
            if not landing([("placement", board), ("routing", board)], began, head.version.slices):
                raise changed_meanwhile("placement")
            onto: Design = load_design(session, head.version).with_arrangement(board, best)
            for name, slice_text in made[0]["slices"].items():
                onto = onto.with_made(name, board, MADE[name].model_validate_json(slice_text))
            said = f"{len(made)} arrangements of {board} tried, number {best} taken"
            commit_version(session, head.revision, onto, said, author, datetime.now(UTC))
        return f"{said}."

    return work


def keep(
    factory: sessionmaker[Session],
    project_id: int,
    design: Design,
    made: list[Step],
    author: str,
    before: Slices,
) -> str:
    """Commit what was made on whatever is head by now, and say it; where a later step was refused
    or stopped, what stands before it is kept, and of a routing its last complete state.

    What a person changed while the job ran stays: of a slice that is not the one of `before` any
    more the job's is left out, and all that was made of it. Raises StageRefused where nothing is
    left.
    """
    with factory.begin() as session:
        head = head_of(session, project_id, lock=True)
        onto = load_design(session, head.version)
        landed = landing(made, before, head.version.slices)
        if not landed:
            raise changed_meanwhile(made[0][0])
        for name, subject in landed:
            onto = onto.with_made(name, subject, getattr(design, name)[subject])
        said = words_of(landed)
        commit_version(session, head.revision, onto, said, author, datetime.now(UTC))
    left = [TITLES[name] for name, _ in made if (name, _) not in landed]
    return f"{said}; the {left[0]} was changed by hand meanwhile and stays" if left else said


def landing(made: list[Step], before: Slices, now: Slices) -> list[Step]:
    """What of a job's slices may land: those before the first that somebody changed while it
    ran.
    """
    found: list[Step] = []
    for name, subject in made:
        if slice_in(before, name, subject) != slice_in(now, name, subject):
            return found
        found.append((name, subject))
    return found


def slice_in(slices: Slices, name: SliceName, subject: str) -> str:
    """The digest of a slice in a version; nothing where it is not made."""
    kept = slices.get(name, {})
    return str(kept.get(subject, "")) if isinstance(kept, dict) else ""


def changed_meanwhile(name: SliceName) -> StageRefused:
    """A result that would lie over what a person did while it was worked out."""
    why = f"The {TITLES[name]} was changed by hand while this ran; what was changed stays."
    return StageRefused(name, why, "Start it again.")


def words_of(made: list[Step]) -> str:
    """`Pins solved; Circuit made`."""
    return "; ".join(DONE[name] for name in dict.fromkeys(name for name, _ in made))


def so_far(made: list[Step], refused: StageRefused) -> str:
    """Why it stopped, with what was made before."""
    return f"{words_of(made)}. Stopped there: {refused.why}" if made else refused.why


def finish(factory: sessionmaker[Session], project_id: int, author: str, library: Library) -> Work:
    """A brief as far as it goes: everything made, then the files written and proven; says where it
    stopped and why.
    """
    slices = make_slices(factory, project_id, (), author)
    package = make_release(factory, project_id)

    def work(ticket: Ticket) -> str:
        said = slices(ticket)
        with factory() as session:
            design: Design = load_design(session, head_of(session, project_id).version)
        stops = [f.sentence for f in review(design, library) if f.severity == "stop"]
        if stops:
            more = f" and {len(stops) - 1} more" if len(stops) > 1 else ""
            raise Short(f"{said} Stopped before the files: {stops[0]}{more}".strip())
        return package(ticket)

    return work


def made_text(ticket: Ticket, name: SliceName, subject: str, design: Design) -> str:
    """A slice from a worker; raises StageRefused with the worker's sentence."""
    answer: Any = ticket.compute(make_slice, design.model_dump_json(), name, subject)
    if isinstance(answer, Refusal):
        raise StageRefused(name, answer.sentence, "")
    return str(answer)


def make_release(factory: sessionmaker[Session], project_id: int) -> Work:
    """Package and prove the head; a package that does not hold the design is never kept."""

    def work(ticket: Ticket) -> str:
        with factory() as session:
            head = head_of(session, project_id)
            design: Design = load_design(session, head.version)
            faults = [card.title for card in open_cards(session, project_id)]
        if faults:
            raise Short(
                f"Nothing is written while a fault is open in the log: {faults[0]}. "
                "Fix it, or waive it with a reason."
            )
        ticket.say("writing the files and reading them back")
        answer: Any = ticket.compute(make_package, design.model_dump_json())
        if isinstance(answer, Refusal):
            raise Short(answer.sentence)
        files, proof = answer
        with factory.begin() as session:
            store_release(
                session,
                head.revision.id,
                head.version.id,
                digest_of(design),
                files,
                proof,
                datetime.now(UTC),
            )
        return "The files are written and proven."

    return work


def look_for_aims(factory: sessionmaker[Session], project_id: int, library: Library) -> Work:
    """What the pins would gain from being solved for the placed board, kept by what it depends on;
    the design is left as it is.
    """

    def work(ticket: Ticket) -> str:
        with factory() as session:
            design = load_design(session, head_of(session, project_id).version)
        ticket.say("solving the pins for the placed board")
        answer: Any = ticket.compute(find_aims, design.model_dump_json())
        if isinstance(answer, Refusal):
            raise StageRefused("pins", answer.sentence, "")
        with factory.begin() as session:
            keep_answer(session, aims_key(design, library), json.dumps(answer))
        before, after = (sum(aim[name] for aim in answer) for name in ("before_mm", "after_mm"))
        if after >= before:
            return f"The pins suit the board as it lies: {before:.0f} mm, and no plan is shorter."
        moved = sum(len(aim["moved"]) for aim in answer)
        return (
            f"Solved for the board the ways would be {after:.0f} mm instead of {before:.0f} mm;"
            f" {moved} pins would change."
        )

    return work


def look_for_ways(factory: sessionmaker[Session], project_id: int, library: Library) -> Work:
    """Ways out for every brain whose pins run out, kept by what they depend on; the design is left
    as it is.
    """

    def work(ticket: Ticket) -> str:
        with factory() as session:
            design = load_design(session, head_of(session, project_id).version)
        names, total = [brain.name for brain in design.brief.brains], 0
        for index, name in enumerate(names):
            key = ways_key(design, library, name)
            ticket.say("looking for ways out", index / len(names), (index + 1) / len(names))
            with factory() as session:
                known = answer_of(session, key)
            if known is None:
                answer: Any = ticket.compute(find_ways, design.model_dump_json(), name)
                if isinstance(answer, Refusal):
                    raise StageRefused("pins", answer.sentence, "")
                known = json.dumps(answer)
                with factory.begin() as session:
                    keep_answer(session, key, known)
            total += len(json.loads(known))
        return f"{total} ways out were tried and work." if total else "No single change makes room."

    return work
