"""What jobs do: make slices, and make a release."""

from datetime import UTC, datetime

from sqlalchemy.orm import Session, sessionmaker

from loquet.compiling import proof_figures
from loquet.core.design import SLICES, Design, SliceName
from loquet.core.frozen import digest_of
from loquet.core.library import Library
from loquet.core.pipeline import TITLES, run_stage, stale_slices
from loquet.core.release import release
from loquet.jobs.runner import Ticket, Work
from loquet.store.designs import commit_version, head_of, load_design
from loquet.store.releases import store_release

DONE = {"pins": "Pins solved", "circuit": "Circuit made", "placement": "Parts placed", "routing": "Board routed", "pour": "Ground poured"}


def make_slices(factory: sessionmaker[Session], library: Library, project_id: int, wanted: tuple[SliceName, ...], author: str) -> Work:
    """Make these slices in order, and the stale ones before them; what is finished is committed on whatever is head by then."""

    def work(ticket: Ticket) -> str:
        with factory() as session:
            design = load_design(session, head_of(session, project_id).version)
        made: list[SliceName] = []
        last = max(SLICES.index(name) for name in wanted)
        for name in SLICES[: last + 1]:
            if name in wanted or name in stale_slices(design):
                ticket.say(f"making the {TITLES[name]}")
                design = run_stage(design, name, library, ticket.progress)
                made.append(name)
        ticket.say("keeping the result")
        label = "; ".join(DONE[name] for name in made)
        with factory.begin() as session:
            head = head_of(session, project_id, lock=True)
            onto = load_design(session, head.version)
            merged = onto.model_copy(update={name: getattr(design, name) for name in made})
            commit_version(session, head.revision, merged, label, author, datetime.now(UTC))
        return label + "."

    return work


def make_release(factory: sessionmaker[Session], library: Library, project_id: int) -> Work:
    """Package and prove the head; a package that does not hold the design is never kept."""

    def work(ticket: Ticket) -> str:
        with factory() as session:
            head = head_of(session, project_id)
            design: Design = load_design(session, head.version)
        ticket.say("writing the files and reading them back")
        result = release(design, library)
        if not result.ready or result.proof is None:
            stops = [f.sentence for f in result.findings if f.severity == "stop"]
            return f"Not ready: {stops[0]}" if stops else "Not ready."
        with factory.begin() as session:
            store_release(
                session, head.revision.id, head.version.id, digest_of(design), result.files, proof_figures(result.proof) or {}, datetime.now(UTC)
            )
        return "The files are written and proven."

    return work
