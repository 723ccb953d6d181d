"""Why no plan exists: the plain reasons first, then a smallest set of needs that cannot stand
together.
"""

from collections import Counter
from collections.abc import Callable

from loquet.core.pins.model import Need
from loquet.core.pins.options import Option, shares_debug
from loquet.core.pins.problem import Infeasible, PinProblem

Options = dict[str, tuple[Option, ...]]
PLAIN = "plain pin"
WORDS: dict[str, str] = {
    "input": PLAIN,
    "output": PLAIN,
    "high drive": PLAIN,
    "interrupt": PLAIN,
    "analogue": "analogue channel",
    "timer": "timer output",
    "touch": "touch channel",
    "touch sample": "touch channel",
    "wake-up": "wake-up pin",
    "converter output": "converter output",
}


OTHER_CHIP = "Choose another chip: the search at Pins lists those that fit first."
ELSEWHERE: dict[str, str] = {
    "analogue": (
        "Read it through an outside converter, or choose a chip with analogue channels: "
        "the search at Pins lists those that fit first."
    ),
}


def refuse_early(problem: PinProblem, options: Options) -> Infeasible | None:
    """A need with no pin at all, or two locks on one pin."""
    for need in problem.needs:
        if not options[need.signal]:
            return no_pin(problem, need)
    taken: dict[str, str] = {}
    for signal, pin in problem.locks.items():
        if (
            any(n.signal == signal for n in problem.needs)
            and taken.setdefault(pin, signal) != signal
        ):
            return Infeasible(
                f"Two signals are locked to pin {pin}.",
                "Release one of the locks.",
                (taken[pin], signal),
            )
    return None


def no_pin(problem: PinProblem, need: Need) -> Infeasible:
    """One need that no pin can carry."""
    locked = problem.locks.get(need.signal)
    if locked:
        return Infeasible(
            f"The {need.title} is locked to pin {locked}, which cannot carry it on"
            f" {problem.chip.name}.",
            "Release the lock.",
            (need.signal,),
        )
    return Infeasible(
        f"{problem.chip.name} has no pin for the {need.title} ({WORDS.get(need.kind, need.kind)}).",
        ELSEWHERE.get(need.kind, OTHER_CHIP),
        (need.signal,),
    )


def crowd_of(needs: tuple[Need, ...], options: Options) -> tuple[Need, ...]:
    """Needs that are one more than all the pins, or all the channels, that could carry them (Hall's
    condition), or none.
    """
    by_pin = {
        n.signal: tuple(
            dict.fromkeys(
                (f"shared {o.pin}" if shares_debug(n, o) else o.pin) for o in options[n.signal]
            )
        )
        for n in needs
    }
    by_channel = {
        n.signal: tuple(dict.fromkeys(o.channel for o in options[n.signal])) for n in needs
    }
    channelled = tuple(n for n in needs if all(by_channel[n.signal]))
    return crowded(needs, by_pin) or crowded(channelled, by_channel)


def crowded(needs: tuple[Need, ...], able: dict[str, tuple[str, ...]]) -> tuple[Need, ...]:
    """The first crowd that augmenting ways run into."""
    taken: dict[str, str] = {}
    for need in needs:
        seen: set[str] = set()
        if not augment(need.signal, able, taken, seen):
            reached = {need.signal} | {taken[place] for place in seen}
            return tuple(n for n in needs if n.signal in reached)
    return ()


def augment(
    signal: str, able: dict[str, tuple[str, ...]], taken: dict[str, str], seen: set[str]
) -> bool:
    """Give a signal a place, moving others along where that helps; `seen` gathers the places that
    were tried.
    """
    for place in able[signal]:
        if place in seen:
            continue
        seen.add(place)
        if place not in taken or augment(taken[place], able, taken, seen):
            taken[place] = signal
            return True
    return False


def conflict_of(problem: PinProblem, feasible: Callable[[PinProblem], bool]) -> Infeasible:
    """A smallest set: needs are left out one by one, and stay out while the rest still cannot stand
    together.
    """
    crowd = crowd_of(problem.needs, problem.options())
    needs = list(crowd or problem.needs)
    block = max(1, len(needs) // 4)
    while block >= 1:
        index = 0
        while index < len(needs):
            fewer = (*needs[:index], *needs[index + block :])
            if fewer and not feasible(problem.only(tuple(fewer))):
                needs = list(fewer)
            else:
                index += block
        block = 0 if block == 1 else max(1, block // 2)
    return in_words(problem, tuple(needs), problem.options())


def in_words(problem: PinProblem, needs: tuple[Need, ...], options: Options) -> Infeasible:
    """The set in a sentence: counted by kind where it is long, named where it is short."""
    signals = tuple(n.signal for n in needs)
    locked = [n.title for n in needs if n.signal in problem.locks]
    way = (
        f"Release the lock of the {locked[0]}."
        if locked
        else "Take one of the ways out, or choose another chip."
    )
    if len(needs) <= 5:
        return Infeasible(
            f"On {problem.chip.name} these cannot stand together:"
            f" {', '.join(n.title for n in needs)}.",
            way,
            signals,
        )
    counts = Counter(WORDS.get(n.kind, n.kind) for n in needs)
    kinds = ", ".join(
        f"{count} {word}{'s' if count > 1 else ''}" for word, count in counts.most_common()
    )
    pins = {o.pin for n in needs for o in options[n.signal]}
    if len(pins) < len(needs):
        why = (
            f"{len(needs)} signals ({kinds}) are needed on {len(pins)} pins of {problem.chip.name}"
            " that could carry them."
        )
        keys = sum(n.load == "key" for n in needs)
        return Infeasible(f"{why} {keys} of them are keys." if keys else why, way, signals)
    return Infeasible(
        f"On {problem.chip.name} these {len(needs)} signals ({kinds}) cannot stand together.",
        way,
        signals,
    )
