"""Parts are data: no recipe and no rule knows a part by its id or a pad by its number, and other
parts of the same role go through the same recipes.
"""

import ast
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest

import loquet.core
from loquet.catalogue.bundled import parts
from loquet.core.brief import Brief, read_brief
from loquet.core.circuit import Circuit, Component
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.parts import pattern_of
from loquet.core.parts.own import PartShelf
from loquet.core.parts.part import PACKAGE
from loquet.core.parts.terminal import way
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import release
from tests.core.second_parts import renumbered, shelf_of_twins

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
    ids = parts().keys()
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
    for part in (p for p in parts().values() if p.kind != PACKAGE):
        pads = [pad for terminal in part.terminals.values() for pad in terminal.pads]
        assert sorted(pads) == sorted({pad.number for pad in pattern_of(part.body).pads}), part.id


def shelf_of(library: Library, seed: int) -> Library:
    """The library with all its parts renumbered."""
    return replace(
        library, parts=PartShelf({p.id: renumbered(p, seed) for p in library.parts.values()})
    )


def by_terminal(circuit: Circuit, library: Library, brief: Brief) -> set[tuple[str, str, str]]:
    """Part, terminal and net of every pad; of a screen's header the pins of the module on it."""
    shown = {t.role(): d.part for t in brief.things if (d := t.display()) is not None}
    pins = {
        role: {way(i): name for i, name in enumerate(library.screens[part].pins, 1)}
        for role, part in shown.items()
    }

    def named(component: Component, pad: str) -> str:
        if component.is_chip:
            return pad
        terminal = library.parts[component.part].at_pad[pad]
        return pins.get(component.role, {}).get(terminal, terminal)

    return {(c.role, named(c, pad), net) for c in circuit.components for pad, net in c.pads.items()}


def circuit_of(brief: Brief, library: Library) -> Circuit:
    (made,) = bring_up_to_date(Design(brief=brief), library, "circuit").circuit.values()
    return made.value


@pytest.mark.parametrize("path", PLANNED, ids=lambda path: path.name.split(".")[0])
def test_pads_called_otherwise_give_the_same_nets(path: Path, library: Library) -> None:
    brief = read_brief(path.read_bytes(), path.name)
    usual = by_terminal(circuit_of(brief, library), library, brief)
    for seed in (1, 2, 3):
        other = shelf_of(library, seed)
        assert by_terminal(circuit_of(brief, other), other, brief) == usual


@pytest.mark.parametrize(("seed", "name"), [(1, "dusk-remote"), (2, "focus-pad"), (3, "step-pad")])
def test_pads_called_otherwise_end_ready_and_proven(seed: int, name: str, library: Library) -> None:
    path = next(p for p in EXAMPLES if p.name.startswith(name))
    other = shelf_of(library, seed)
    design = bring_up_to_date(Design(brief=read_brief(path.read_bytes(), path.name)), other)
    made = release(design, other)
    assert made.ready, [f.sentence for f in made.findings if f.severity == "stop"]
    assert made.proof is not None
    assert made.proof.holds


@pytest.mark.parametrize("path", PLANNED, ids=lambda path: path.name.split(".")[0])
def test_a_second_part_of_each_role_goes_through_the_same_recipes(
    path: Path, library: Library
) -> None:
    """Whatever a recipe picks by its role is the twin; what a brief names stays; nets are the
    same.
    """
    brief = read_brief(path.read_bytes(), path.name)
    named = {body.part for thing in brief.things for body in thing.bodies()}
    shelf = shelf_of_twins(library)
    made = circuit_of(brief, shelf)
    assert by_terminal(made, shelf, brief) == by_terminal(
        circuit_of(brief, library), library, brief
    )
    picked = {c.part for c in made.components if not c.is_chip} - named
    assert picked
    assert [part for part in picked if not part.startswith("own/")] == []
