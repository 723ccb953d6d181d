"""What each kind puts on a board, in the order in which references are numbered. A test holds this tuple to the folder."""

from collections.abc import Callable

from loquet.core.brief import Thing
from loquet.core.brief.thing import Worked
from loquet.core.circuit.model import Fragment
from loquet.core.circuit.recipes import (
    brain_talk,
    button,
    buzzer,
    cells,
    chip,
    encoder,
    light,
    pad,
    power_switch,
    programming,
    ready_module,
    screen,
    slider,
    stick,
    test_point,
    touch,
    trigger,
)

RECIPES: tuple[tuple[type[Thing], Callable[..., Fragment]], ...] = (
    chip.RECIPE,
    ready_module.RECIPE,
    button.RECIPE,
    pad.RECIPE,
    stick.RECIPE,
    trigger.RECIPE,
    encoder.RECIPE,
    slider.RECIPE,
    touch.RECIPE,
    screen.RECIPE,
    buzzer.RECIPE,
    light.RECIPE,
    cells.RECIPE,
    power_switch.RECIPE,
    programming.RECIPE,
    test_point.RECIPE,
    brain_talk.RECIPE,
)


def recipe_for(thing: Thing) -> Callable[..., Fragment] | None:
    """The recipe of a thing's kind; None where there is none yet."""
    return next((function for kind, function in RECIPES if kind is type(thing)), None)


def rank_of(thing: Thing) -> int:
    """Where a thing's kind stands among the recipes; all controls stand together."""
    kinds = [kind for kind, _ in RECIPES]
    if isinstance(thing, Worked):
        return min(i for i, kind in enumerate(kinds) if issubclass(kind, Worked))
    return kinds.index(type(thing)) if type(thing) in kinds else len(kinds)
