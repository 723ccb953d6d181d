"""The parts shelf: what there is by kind, one part with its drawing, parts of one's own typed,
checked, kept, taken in and given out as packs.
"""

from typing import Annotated, Any

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field, ValidationError

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.catalogue.bundled import registered_types, roles
from loquet.core.design import Design
from loquet.core.drawers.part_page import write_part_page
from loquet.core.ordering.house import House
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Part, pattern_of
from loquet.core.parts.choosing import of_kind
from loquet.core.parts.in_use import InUse, Mates
from loquet.core.parts.paste import Paste
from loquet.core.shelf.differing import Difference, differences
from loquet.core.shelf.drawing import PartDrawing, drawing_of
from loquet.core.shelf.faults import PartFault, entry_faults, faults_of
from loquet.core.shelf.pack import (
    OWN,
    SORTS,
    Entry,
    PackRefused,
    part_faults,
    read_pack,
    write_pack,
)
from loquet.core.shelf.pin_table import PinRow, UnreadRow, for_role, read_pin_table
from loquet.core.shelf.role import Lack, Roles
from loquet.shelving import workshop_pack
from loquet.store import shelf
from loquet.store.designs import NotFound, all_projects, head_of, load_design
from loquet.store.tables import ShelfRow

router = APIRouter(prefix="/api", tags=["shelf"])
MOST_TEXT = 12_000_000


class FigureView(BaseModel):
    """A figure that a kind wants."""

    name: str
    words: str
    unit: str


class RoleView(BaseModel):
    """A kind of parts: what it must have, and how many there are."""

    name: str
    terminals: list[str]
    figures: list[FigureView]
    could_say: list[FigureView]
    count: int
    mates: Mates | None
    in_use: InUse | None
    trial: str
    with_it: tuple[str, ...]


class ShelfRowView(BaseModel):
    """A part on the shelf; `version` 0 ships with Loquet."""

    id: str
    kind: str
    description: str
    price_cents: float
    evidence: str
    evidence_text: str
    version: int
    lacks: list[Lack]


class ShelfView(BaseModel):
    """Everything on the shelf."""

    roles: list[RoleView]
    parts: list[ShelfRowView]


class PartVersion(BaseModel):
    """A version of a part: when, by whom, and what it changed."""

    version: int
    author: str
    day: str
    changed: list[Difference]


class UsedIn(BaseModel):
    """A project that took a part; `same` as it is on the shelf now."""

    project: int
    name: str
    same: bool


class Looked(BaseModel):
    """A part looked at: what is wrong, what it lacks of its kind, its drawing where it has one."""

    faults: list[PartFault]
    lacks: list[Lack]
    drawing: PartDrawing | None


class ShelfPart(Looked):
    """A part of the shelf with its history."""

    part: Part
    version: int
    versions: list[PartVersion]
    used_in: list[UsedIn]


@router.get("/shelf")
def get_shelf(session: SessionNow, context: ContextNow) -> ShelfView:
    """All parts that ship with Loquet, and those of the workshop."""
    own = {row.entry_id: (shelf.part_in(row), row.version) for row in shelf.rows_now(session)}
    known = roles()
    bundled = [(part, 0) for part in context.library.parts.values()]
    rows = [*own.values(), *bundled]
    views = [
        RoleView(
            name=role.name,
            terminals=list(role.terminals),
            figures=[figure_view(known, name) for name in role.figures],
            could_say=[figure_view(known, name) for name in role.could_say],
            count=sum(part.kind == role.name for part, _ in rows),
            mates=role.mates,
            in_use=role.in_use,
            trial=role.trial,
            with_it=role.with_it,
        )
        for role in known.role
    ]
    return ShelfView(roles=views, parts=[row_view(part, version) for part, version in rows])


def figure_view(known: Roles, name: str) -> FigureView:
    """A figure in words."""
    return FigureView(name=name, words=known.figures[name].words, unit=known.figures[name].unit)


def row_view(part: Part, version: int) -> ShelfRowView:
    """A part in a line."""
    return ShelfRowView(
        id=part.id,
        kind=part.kind,
        description=part.description,
        price_cents=part.price_cents,
        evidence=part.evidence,
        evidence_text=part.evidence_text,
        version=version,
        lacks=list(roles().lacks(part)),
    )


def looked_at(part: Part) -> Looked:
    """What is wrong with a part and what it lacks."""
    faults = faults_of(part)
    drawn = not any(fault.field == "body" and "land pattern" in fault.problem for fault in faults)
    return Looked(
        faults=list(faults),
        lacks=list(roles().lacks(part)),
        drawing=drawing_of(part, pattern_of(part.body)) if drawn else None,
    )


@router.get("/shelf/part")
def get_shelf_part(id: str, session: SessionNow, context: ContextNow) -> ShelfPart:
    """One part; raises NotFound."""
    rows = shelf.versions_of(session, id[:80])
    part, version = part_now(id, rows, context)
    contents = [shelf.part_in(row) for row in rows]
    versions = [
        PartVersion(
            version=row.version,
            author=row.author,
            day=row.created_at.date().isoformat(),
            changed=list(differences(contents[i + 1], contents[i])) if i + 1 < len(rows) else [],
        )
        for i, row in enumerate(rows)
    ]
    seen = looked_at(part)
    return ShelfPart(
        part=part,
        version=version,
        versions=versions,
        used_in=used_in(session, part),
        faults=seen.faults,
        lacks=seen.lacks,
        drawing=seen.drawing,
    )


def used_in(session: SessionNow, part: Part) -> list[UsedIn]:
    """Projects that took a part of one's own."""
    found = []
    for project in all_projects(session) if part.id.startswith(OWN) else []:
        design = load_design(session, head_of(session, project.id).version)
        taken = design.choices.shelf.get(part.id)
        if taken is not None:
            found.append(UsedIn(project=project.id, name=project.name, same=taken == part))
    return found


class TypedPart(BaseModel):
    """A part as it was typed, and the version that was seen (0: new)."""

    part: dict[str, Any]
    version: Annotated[int, Field(ge=0)] = 0


def part_now(id: str, rows: list[ShelfRow], context: ContextNow) -> tuple[Part, int]:
    """A part of one's own as it is now, or one that ships with Loquet, with its version; raises
    NotFound.
    """
    if rows and not rows[0].gone:
        return shelf.part_in(rows[0]), rows[0].version
    if id in context.library.parts:
        return context.library.parts[id], 0
    raise NotFound(f"There is no part {id[:80]} on the shelf.")


@router.get("/shelf/part/page.pdf", response_class=Response)
def get_part_page(id: str, session: SessionNow, context: ContextNow) -> Response:
    """A page to lay a part on, at true size, with what to measure; raises NotFound."""
    part, _ = part_now(id, shelf.versions_of(session, id[:80]), context)
    headers = {"Content-Disposition": 'inline; filename="part.pdf"'}
    return Response(write_part_page(part), media_type="application/pdf", headers=headers)


@router.post("/shelf/look")
def look_at_part(given: TypedPart) -> Looked:
    """A part looked at while it is typed; fields that cannot be are faults."""
    try:
        return looked_at(Part.model_validate(given.part))
    except ValidationError as error:
        return Looked(faults=part_faults(error), lacks=[], drawing=None)


@router.put("/shelf/part")
def keep_shelf_part(given: TypedPart, session: SessionNow, context: ContextNow) -> ShelfPart:
    """Keep a part of one's own; raises Refused for one that cannot be, ShelfConflict."""
    try:
        part = Part.model_validate(given.part)
    except ValidationError as error:
        first = part_faults(error)[0]
        words = f"{first.field} {first.problem}."
        raise Refused(words, first.way_out, place=first.field) from None
    faults = [*own_id_faults(part), *faults_of(part)]
    if faults:
        raise Refused(f"{faults[0].problem}.", faults[0].way_out, place=faults[0].field)
    shelf.put_entry(session, part, given.version, AUTHOR)
    return get_shelf_part(part.id, session, context)


def own_id_faults(part: Part) -> list[PartFault]:
    """Whether it is called as parts of one's own are."""
    if part.id.startswith(OWN):
        return []
    problem = f"'{part.id[:40]}' is no name of a part of one's own"
    return [PartFault(field="id", problem=problem, way_out="Call it own/NAME.")]


@router.delete("/shelf/entry")
def drop_shelf_entry(id: str, version: int, session: SessionNow) -> dict[str, str]:
    """Take a part, house or supplier off the shelf; projects that took it keep it. Raises NotFound,
    ShelfConflict.
    """
    shelf.drop_entry(session, id[:80], version, AUTHOR)
    return {"gone": id[:80]}


class PinTableText(BaseModel):
    """A pin table as it was copied, and the kind of the part."""

    text: Annotated[str, Field(max_length=60_000)]
    kind: Annotated[str, Field(max_length=40)] = ""


class PinTableRead(BaseModel):
    """What was read of it."""

    rows: list[PinRow]
    unread: list[UnreadRow]


@router.post("/shelf/pin-table")
def read_pin_rows(given: PinTableText) -> PinTableRead:
    """Terminals of a pin table."""
    rows, unread = read_pin_table(given.text)
    role = roles().of(given.kind)
    rows = for_role(rows, (*role.terminals, *role.also)) if role else rows
    return PinTableRead(rows=list(rows), unread=list(unread))


@router.get("/shelf/pack.toml", response_class=Response)
def give_pack(session: SessionNow) -> Response:
    """The workshop's own shelf as a pack."""
    data = write_pack(workshop_pack(session))
    name = {"Content-Disposition": 'attachment; filename="workshop.toml"'}
    return Response(data, media_type="application/toml", headers=name)


@router.get("/shelf/registered.toml", response_class=Response)
def give_registered() -> Response:
    """Types whose numbers a body registers, as a pack to take parts of."""
    return Response(registered_types(), media_type="application/toml")


class PackText(BaseModel):
    """A pack, and which of its parts are to be taken; none looks only."""

    text: Annotated[str, Field(max_length=MOST_TEXT)]
    file: Annotated[str, Field(max_length=120)] = "the pack"
    take: list[str] = []


class PackRow(BaseModel):
    """An entry of a pack against the shelf; a supplier comes with its price list."""

    id: str
    kind: str
    description: str
    here: str
    changed: list[Difference]
    lacks: list[Lack]


@router.post("/shelf/pack")
def read_in_pack(given: PackText, session: SessionNow) -> list[PackRow]:
    """What a pack would bring, entry by entry; those that are named are taken. Raises Refused with
    every fault and its line.
    """
    try:
        pack = read_pack(given.text.encode(), given.file)
    except PackRefused as error:
        more = "\n".join(fault.sentence for fault in error.faults[1:])
        first = error.faults[0]
        raise Refused(first.sentence, more, place=f"line {first.line}") from None
    found = []
    for entry in pack.entries.values():
        sort = next((sort for sort, begins in SORTS.items() if entry.id.startswith(begins)), "")
        if not isinstance(entry, SORT_MODELS.get(sort, ())):
            way_out = f"Call it {own_name(entry)}."
            raise Refused(f"'{entry.id[:40]}' is no name of one's own.", way_out, place=entry.id)
        row = shelf.newest(session, entry.id)
        row = None if row is None or row.gone else row
        changed = list(differences(shelf.entry_in(row), entry)) if row else []
        here = "new" if row is None else ("changed" if changed else "same")
        if entry.id in given.take:
            if faults := entry_faults(entry):
                raise Refused(f"{entry.id}: {faults[0].problem}.", faults[0].way_out)
            shelf.put_entry(session, entry, row.version if row else 0, AUTHOR)
            if sort == "supplier":
                lines = [line for line in pack.price if line.supplier == entry.id]
                shelf.put_prices(session, entry.id, lines)
            here = "taken"
        part = entry if isinstance(entry, Part) else None
        found.append(
            PackRow(
                id=entry.id,
                kind=part.kind if part else sort,
                description=part.description if part else str(getattr(entry, "name", "")),
                here=here,
                changed=changed,
                lacks=list(roles().lacks(part)) if part else [],
            )
        )
    return found


def own_name(entry: Entry) -> str:
    """How an entry of its sort is called."""
    sort = next(sort for sort, model in SORT_MODELS.items() if isinstance(entry, model))
    return f"{SORTS[sort]}NAME"


SORT_MODELS: dict[str, type] = {
    "part": Part,
    "house": House,
    "supplier": Supplier,
    "paste": Paste,
}


class TakenView(BaseModel):
    """A part of one's own in a project: `here` says how the shelf stands to it now."""

    part: Part
    here: str
    changed: list[Difference]
    used_for: list[str]


class ServingKind(BaseModel):
    """A kind of parts of which a project uses one and could use others, and who chose."""

    kind: str
    taken: str
    chosen: bool
    others: list[ShelfRowView]


class ProjectShelf(BaseModel):
    """Parts of one's own that a project took, and kinds with a choice."""

    taken: list[TakenView]
    kinds: list[ServingKind]
    could_take: list[ShelfRowView]


@router.get("/projects/{project_id}/shelf")
def get_project_shelf(project_id: int, session: SessionNow, context: ContextNow) -> ProjectShelf:
    """How a project stands to the shelf."""
    design = load_design(session, head_of(session, project_id).version)
    own = {row.entry_id: (shelf.part_in(row), row.version) for row in shelf.rows_now(session)}
    taken = []
    for key, part in design.choices.shelf.items():
        now = own[key][0] if key in own else None
        changed = list(differences(part, now)) if now else []
        here = "not on the shelf" if now is None else ("changed" if changed else "same")
        taken.append(
            TakenView(part=part, here=here, changed=changed, used_for=used_for(design, key))
        )
    could = [row_view(part, v) for part, v in own.values() if part.id not in design.choices.shelf]
    return ProjectShelf(taken=taken, kinds=kinds_of(design, context), could_take=could)


def used_for(design: Design, part_id: str) -> list[str]:
    """What a part does in a project's circuit."""
    circuits = (made.value for made in design.circuit.values())
    return [
        f"{c.ref} {c.purpose}" for made in circuits for c in made.components if c.part == part_id
    ]


def kinds_of(design: Design, context: ContextNow) -> list[ServingKind]:
    """Kinds of parts that recipes took, of which there is more than one that could serve."""
    library = context.known(design)
    named = {body.part for thing in design.brief.things for body in thing.bodies()}
    used: dict[str, str] = {}
    for made in design.circuit.values():
        for component in made.value.components:
            part = library.parts.get(component.part) if not component.is_chip else None
            if part is not None and part.id not in named:
                used.setdefault(part.kind, part.id)
    found = []
    for kind, taken in used.items():
        others = [p for p in of_kind(library.parts, kind) if p.id != taken]
        alike = [p for p in others if not [w for w in roles().lacks(p) if not w.serves]][:8]
        role = roles().of(kind)
        if alike and role is not None and not role.ways:
            found.append(
                ServingKind(
                    kind=kind,
                    taken=taken,
                    chosen=design.choices.preferred.get(kind) == taken,
                    others=[row_view(part, 0) for part in alike],
                )
            )
    return found
