"""A pin plan checked and scored without the solver."""

from collections import Counter

from loquet.core.pins.options import Option, options_of, shares_debug
from loquet.core.pins.problem import PinProblem, Score, port_letter
from loquet.core.pins.spares import short_of


def score_of(problem: PinProblem, picks: dict[str, Option]) -> Score:
    """What a plan costs: risk, spares missing, steps of length, ports of the lines that are read
    together.
    """
    used = {o.pin for o in picks.values()}
    blocks = {picks[n.signal].hardware for n in problem.needs if n.bus}
    return Score(
        risk=sum(o.risk for o in picks.values()),
        short=sum(count for _, count in short_of(problem.chip, used, blocks)),
        steps=sum(problem.steps(n, picks[n.signal].pin) for n in problem.needs),
        ports=len({port_letter(picks[n.signal].port) for n in problem.needs if n.reads}),
    )


def faults_of(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """What is wrong with a plan, found without the solver: empty where it holds."""
    missing = [f"{need.signal} has no pin" for need in problem.needs if need.signal not in picks]
    if missing:
        return missing
    return [
        *option_faults(problem, picks),
        *sharing_faults(problem, picks),
        *bus_faults(problem, picks),
        *timer_faults(problem, picks),
    ]


def option_faults(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """Pins that cannot do what is asked, and locks that were not kept."""
    faults = []
    for need in problem.needs:
        option, locked = picks[need.signal], problem.locks.get(need.signal)
        if option not in options_of(need, problem.chip, locked):
            faults.append(
                f"{need.signal} is locked to pin {locked}"
                if locked and locked != option.pin
                else f"{need.signal} cannot be on pin {option.pin}"
            )
    return faults


def sharing_faults(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """Two signals on one pin, channel or interrupt line; a debug pin may be shared where a person
    has locked it so.
    """
    faults = []
    users: dict[str, str] = {}
    for need in problem.needs:
        option = picks[need.signal]
        locked_on_debug = shares_debug(need, option)
        if (
            option.pin in users
            and not locked_on_debug
            and not users[option.pin].startswith("(locked)")
        ):
            faults.append(f"{need.signal} and {users[option.pin]} share pin {option.pin}")
        users[option.pin] = f"(locked) {need.signal}" if locked_on_debug else need.signal
    channels = Counter(picks[n.signal].channel for n in problem.needs if picks[n.signal].channel)
    return faults + [
        f"{count} signals share {channel}" for channel, count in channels.items() if count > 1
    ]


def bus_faults(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """A bus spread over instances, and two buses on one block."""
    faults = []
    holders: dict[str, str] = {}
    for bus in dict.fromkeys(n.bus for n in problem.needs if n.bus):
        chosen = [picks[n.signal] for n in problem.needs if n.bus == bus]
        if len({o.group for o in chosen}) > 1:
            faults.append(f"the signals of {bus} are on different instances")
        for block in {o.hardware for o in chosen}:
            if holders.setdefault(block, bus) != bus:
                faults.append(f"{bus} and {holders[block]} both use {block}")
    return faults


def timer_faults(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """Timers at two rates, and peripherals in two remap groups."""
    faults = []
    rates: dict[str, str] = {}
    remaps: dict[str, str] = {}
    for need in problem.needs:
        option = picks[need.signal]
        if need.kind == "timer" and rates.setdefault(option.hardware, need.rate) != need.rate:
            faults.append(f"{option.hardware} would run at two rates")
        if option.remap and remaps.setdefault(option.remap[0], option.remap[1]) != option.remap[1]:
            faults.append(f"{option.remap[0]} would be in two remap groups")
    return faults
