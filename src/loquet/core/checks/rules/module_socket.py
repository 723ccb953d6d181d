"""The USB socket of a module alone feeds the module's supply pin, and it is known where it is."""

from collections.abc import Iterator

from loquet.core.brief.kinds.module_port import ModulePort
from loquet.core.brief.module_sockets import module_of, module_sockets
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.brains import chip_for
from loquet.core.parts import PartError
from loquet.core.power.rails import rail_of
from loquet.core.provenance import Finding, NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look at every socket with its module."""
    ports = [t for t in subject.brief.things if isinstance(t, ModulePort)]
    if not ports:
        return NotApplicable("no socket of a module is in use")
    found = [finding for port in ports for finding in of_port(subject, port)]
    return outcome(found, len(ports))


def of_port(subject: Subject, port: ModulePort) -> Iterator[Finding]:
    """What is wrong with one socket."""
    brief, module = subject.brief, module_of(subject.brief, port)
    at = (thing(port.name),)
    if module is None or not (module.READY_MADE and module.LOWER_FEED):
        named = module.name if module else port.brain or "nothing"
        yield RULE.finding(
            f"The socket {port.name} is said to be on {named}, which is no ready module.",
            "Name the module that has it, or take a USB port of the board's own.",
            at,
        )
        return
    first = module_sockets(brief)[module.name]
    if first is not port:
        yield RULE.finding(
            f"{module.name} has two sockets, {first.name} and {port.name}, and one supply pin.",
            "Take one of them out.",
            at,
        )
        return
    rail = rail_of(brief, module)
    if rail.fed_by != port.name:
        edit = {"kind": "change-thing", "name": module.name, "changes": {"rail": port.name}}
        way_out = f"Let {module.name} take the rail of {port.name}"
        yield RULE.finding(
            f"{port.name} comes in at the supply pin of {module.name}, and so does {rail.net} of"
            f" {rail.fed_by or 'nothing'}: with its cable in, one feeds the other.",
            f"{way_out}, or take one of them out.",
            (*at, thing(module.name)),
            repairs=(Repair(label=way_out, edit=edit),),
        )
    yield from unknown_place(subject, port, module.name)


def unknown_place(subject: Subject, port: ModulePort, module: str) -> Iterator[Finding]:
    """A module whose drawing does not say what is plugged into it."""
    try:
        chip = chip_for(subject.brief, subject.library, module)
    except PartError:
        return
    if subject.library.plug(f"chip:{chip.name}") is None:
        yield RULE.finding(
            f"The drawing of {module} does not say where its socket is: whether a plug reaches it"
            " was not looked at.",
            "Say on the shelf what is plugged into its package; its mating side is the lower one.",
            (thing(port.name), thing(module)),
            severity="look",
        )


RULE = Rule(
    "module-socket",
    "power",
    "stop",
    "Two sources at one pin feed one another: a host's port is pushed back into.",
    Source(kind="standard", text="USB 2.0 section 7.2.1: a device gives no power upstream"),
    run,
)
