"""Kinds of things: nothing is listed twice or forgotten, and a kind that nobody knew yet goes
through every layer.
"""

import re
from pathlib import Path
from typing import Annotated, Literal

import pytest
from fastapi.testclient import TestClient
from pydantic import Field

from loquet.api.kinds import list_kinds
from loquet.core.brief import brief_from_plain, kinds
from loquet.core.brief.any_thing import kind_name
from loquet.core.brief.thing import Body, Thing
from loquet.core.circuit import recipes
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Component, Fragment
from loquet.core.design import Design
from loquet.core.edits import AddThing, ChangeThing, RemoveThings
from loquet.core.pins import needs
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need
from loquet.core.pins.needing import needs_of
from loquet.demo.scenario import demo_brief
from tests.making import plain_of

CORE = Path(kinds.__file__).parents[2]
FOLDERS = (Path(p.__file__).parent for p in (kinds, needs, recipes))


def modules_of(package: object) -> set[str]:
    folder = Path(str(package.__file__)).parent  # type: ignore[attr-defined]
    return {p.stem for p in folder.glob("*.py")} - {"__init__"}


def test_every_file_of_a_kind_is_in_its_tuple_once() -> None:
    assert sorted(k.__module__.rpartition(".")[2] for k in kinds.KINDS) == sorted(modules_of(kinds))
    for package, rows in ((needs, needs.NEEDS), (recipes, recipes.RECIPES)):
        owners = [kind.__module__.rpartition(".")[2] for kind, _ in rows]
        assert sorted(owners) == sorted(modules_of(package))
        assert len({kind for kind, _ in rows}) == len(rows)
        assert {kind for kind, _ in rows} <= set(kinds.KINDS)


@pytest.mark.parametrize("model", kinds.KINDS, ids=kind_name)
def test_a_kind_says_what_it_is(model: type[Thing]) -> None:
    """Every kind can be made with nothing but a name, has words for the tray, and says what it is
    for.
    """
    found = model.model_validate({"name": model.WORD, "kind": kind_name(model)})
    assert all((found.role(), model.TITLE, model.MARK))
    assert (model.__doc__ or "").strip().endswith(".")
    assert re.fullmatch(r"[a-z]+(-[a-z]+)*", kind_name(model))


def test_the_core_outside_the_kinds_never_takes_a_role_apart_or_names_a_kind_of_control() -> None:
    inside = tuple(FOLDERS)
    for path in sorted(CORE.rglob("*.py")):
        if any(folder in path.parents for folder in inside) or "first" in path.parts:
            continue
        text = path.read_text()
        assert not re.search(r'(split|partition)\(":', text), path.name
        assert not re.search(r'kind == "(button|pad|stick|encoder|slider|screen|buzzer)"', text), (
            path
        )


class Whistle(Thing):
    """A whistle that air blows."""

    GROUP = "sounds"
    TITLE = "Whistle"
    WORD = "whistle"
    MARK = "sound"

    kind: Literal["whistle"] = "whistle"
    pipes: Annotated[int, Field(ge=1, le=4)] = 2

    def bodies(self) -> tuple[Body, ...]:
        """One valve."""
        return (Body(part="test-point-round", kinds=("test point",)),)


def blows(thing: Whistle, ask: Asking) -> list[Need]:
    return ask.lines(thing.pipes, "output", "pipe")


def piped(thing: Whistle, bench: Bench) -> Fragment:
    return Fragment(
        (
            Component(
                role=thing.role(),
                part="test-point-round",
                block="sound",
                value="",
                purpose="Whistle",
                pads={"1": "GROUND"},
                bare=True,
            ),
        )
    )


@pytest.fixture
def whistles(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(kinds, "KINDS", (*kinds.KINDS, Whistle))
    monkeypatch.setattr(needs, "NEEDS", (*needs.NEEDS, (Whistle, blows)))
    monkeypatch.setattr(recipes, "RECIPES", (*recipes.RECIPES, (Whistle, piped)))


@pytest.mark.usefixtures("whistles")
def test_a_kind_that_nobody_knew_goes_through_edits_needs_and_the_form() -> None:
    before = Design(brief=demo_brief("dusk-remote"))
    thing = {"kind": "whistle", "name": "air", "place": {"x_mm": 12, "y_mm": 38}}
    with_it = AddThing.model_validate({"thing": thing}).apply(before)
    asked = [n.signal for n in needs_of(with_it.brief) if n.thing == "air"]
    assert asked == ["whistle:air:1", "whistle:air:2"]
    more = ChangeThing(name="air", changes={"pipes": 4}).apply(with_it)
    assert len([n for n in needs_of(more.brief) if n.thing == "air"]) == 4
    with pytest.raises(Exception, match="Pipes 9 of air: it must be at most 4"):
        ChangeThing(name="air", changes={"pipes": 9}).apply(with_it)
    assert brief_from_plain(plain_of(more.brief)) == more.brief
    view = next(k for k in list_kinds() if k.kind == "whistle")
    field = next(f for f in view.fields if f.name == "pipes")
    assert view.group == "sounds"
    assert (field.title, field.what, field.low, field.high) == ("Pipes", "whole", 1, 4)
    assert RemoveThings(names=("air",)).apply(more).brief == before.brief


@pytest.mark.usefixtures("whistles")
def test_a_kind_that_nobody_knew_is_drawn(client: TestClient) -> None:
    project = client.post("/api/projects", json=plain_of(demo_brief("dusk-remote"))).json()[
        "project"
    ]
    version = client.get(f"/api/projects/{project}").json()["version"]
    thing = {"kind": "whistle", "name": "air", "place": {"x_mm": 12, "y_mm": 38}}
    body = {"edit": {"kind": "add-thing", "thing": thing}, "version": version}
    head = client.post(f"/api/projects/{project}/edits", json=body).json()
    (air,) = (t for t in head["things"] if t["name"] == "air")
    assert (air["title"], air["x_mm"], len(air["asks"])) == ("Whistle", 12, 2)
