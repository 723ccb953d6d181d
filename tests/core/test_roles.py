"""Parts are data: no recipe and no rule knows a part by its id or a pad by its number, and other
parts of the same role go through the same recipes.
"""

import ast
import random
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest

import loquet.core
from loquet.catalogue.bundled import parts, screens
from loquet.core.brief import Brief, read_brief
from loquet.core.circuit import Circuit
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import library_with
from loquet.core.parts import Part, pattern_of
from loquet.core.parts.own import PartShelf
from loquet.core.parts.part import Drawn
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import release

CORE = Path(loquet.core.__file__).parent
ROOMS = ("circuit", "power", "checks", "build", "stack")
EXAMPLES = sorted((Path(__file__).parents[2] / "examples").glob("*.brief.json"))
PLANNED = [path for path in EXAMPLES if not path.name.startswith("ridge")]  # it has no plan


def constants(tree: ast.AST) -> Iterator[tuple[int, str]]:
    """Texts that may name something: keys, indices, arguments, elements."""
    for node in ast.walk(tree):
        named: list[ast.expr | None] = []
        match node:
            case ast.Dict():
                named = [*node.keys, *node.values]
            case ast.Subscript():
                named = [node.slice]
            case ast.Call():
                named = list(node.args)
            case ast.Tuple() | ast.List() | ast.Set():
                named = list(node.elts)
            case ast.Assign() | ast.keyword():
                named = [node.value]
        for item in named:
            if isinstance(item, ast.Constant) and isinstance(item.value, str):
                yield item.lineno, item.value


def test_no_room_names_a_part_or_a_pad() -> None:
    ids = parts().keys() | screens().keys()
    assert len(ids) > 300
    found = [
        (path.relative_to(CORE).as_posix(), line, text)
        for room in ROOMS
        for path in sorted((CORE / room).rglob("*.py"))
        for line, text in constants(ast.parse(path.read_text()))
        if text in ids or text.isdigit()
    ]
    assert found == []


def test_every_pad_has_one_terminal() -> None:
    for part in parts().values():
        pads = [pad for terminal in part.terminals.values() for pad in terminal.pads]
        assert sorted(pads) == sorted({pad.number for pad in pattern_of(part.body).pads}), part.id


def renumbered(part: Part, seed: int) -> Part:
    """The part with its pads called otherwise: a drawn body keeps each function at its place, one
    by formula has its functions at other places.
    """
    numbers = sorted({pad.number for pad in pattern_of(part.body).pads})
    others = random.Random(f"{seed} {part.id}").sample(numbers, len(numbers))
    new = dict(zip(numbers, others, strict=True))
    terminals = {
        name: t.model_copy(update={"pads": tuple(new[pad] for pad in t.pads)})
        for name, t in part.terminals.items()
    }
    body = part.body
    if isinstance(body, Drawn):
        pads = tuple(p.model_copy(update={"number": new[p.number]}) for p in body.pads)
        body = body.model_copy(update={"pads": pads})
    fields = {name: getattr(part, name) for name in Part.model_fields}
    return Part(**{**fields, "terminals": terminals, "body": body})


def shelf_of(library: Library, seed: int) -> Library:
    """The library with all its parts renumbered."""
    return replace(
        library, parts=PartShelf({p.id: renumbered(p, seed) for p in library.parts.values()})
    )


def by_terminal(circuit: Circuit, library: Library) -> set[tuple[str, str, str]]:
    """Part, terminal and net of every pad."""
    return {
        (c.role, pad if c.is_chip else library.parts[c.part].at_pad[pad], net)
        for c in circuit.components
        for pad, net in c.pads.items()
    }


def circuit_of(brief: Brief, library: Library) -> Circuit:
    (made,) = bring_up_to_date(Design(brief=brief), library, "circuit").circuit.values()
    return made.value


@pytest.mark.parametrize("path", PLANNED, ids=lambda path: path.name.split(".")[0])
def test_pads_called_otherwise_give_the_same_nets(path: Path, library: Library) -> None:
    brief = read_brief(path.read_bytes(), path.name)
    usual = by_terminal(circuit_of(brief, library), library)
    for seed in (1, 2, 3):
        other = shelf_of(library, seed)
        assert by_terminal(circuit_of(brief, other), other) == usual


@pytest.mark.parametrize(("seed", "name"), [(1, "dusk-remote"), (2, "focus-pad"), (3, "step-pad")])
def test_pads_called_otherwise_end_ready_and_proven(seed: int, name: str, library: Library) -> None:
    path = next(p for p in EXAMPLES if p.name.startswith(name))
    other = shelf_of(library, seed)
    design = bring_up_to_date(Design(brief=read_brief(path.read_bytes(), path.name)), other)
    made = release(design, other)
    assert made.ready, [f.sentence for f in made.findings if f.severity == "stop"]
    assert made.proof is not None
    assert made.proof.holds


def twins(library: Library) -> dict[str, Part]:
    """A second part for every one, with other pads, a longer body and half a volt less at its
    limits, under a name of one's own.
    """
    found = {}
    for part in [renumbered(usual, 4) for usual in library.parts.values()]:
        fields = {name: getattr(part, name) for name in Part.model_fields}
        values = {n: v - 0.5 if n == "input_max_v" else v for n, v in part.values.items()}
        body = part.body
        if isinstance(body, Drawn):
            wide, high = body.body_mm
            body = body.model_copy(update={"body_mm": (wide + 0.2, high)})
        twin = Part(**{**fields, "id": f"own/{part.id}", "values": values, "body": body})
        found[twin.id] = twin
    return found


@pytest.mark.parametrize("path", PLANNED, ids=lambda path: path.name.split(".")[0])
def test_a_second_part_of_each_role_goes_through_the_same_recipes(
    path: Path, library: Library
) -> None:
    """Whatever a recipe picks by its role is the twin; what a brief names stays; nets are the
    same.
    """
    brief = read_brief(path.read_bytes(), path.name)
    named = {body.part for thing in brief.things for body in thing.bodies()}
    shelf = library_with(twins(library), library)
    made = circuit_of(brief, shelf)
    assert by_terminal(made, shelf) == by_terminal(circuit_of(brief, library), library)
    picked = {c.part for c in made.components if not c.is_chip} - named
    assert picked
    assert [part for part in picked if not part.startswith("own/")] == []


def test_second_parts_end_ready_and_proven(library: Library) -> None:
    shelf = library_with(twins(library), library)
    path = next(p for p in PLANNED if p.name.startswith("log-key-pad"))
    design = bring_up_to_date(Design(brief=read_brief(path.read_bytes(), path.name)), shelf)
    made = release(design, shelf)
    assert made.ready, [f.sentence for f in made.findings if f.severity == "stop"]
