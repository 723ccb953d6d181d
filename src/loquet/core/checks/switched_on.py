"""What rules ask of a device that is switched on."""

from loquet.core.checks.rule import Subject, thing
from loquet.core.energising.carried import Carried
from loquet.core.energising.energised import Energised
from loquet.core.energising.wording import words_of
from loquet.core.lookup.switched_on import Planned, carried_of, energised_of


def switched_on(subject: Subject) -> Energised:
    """All states of what a rule looks at."""
    assert subject.circuit is not None
    return energised_of(subject.brief, subject.circuit, subject.library, planned(subject))


def carried_by(subject: Subject) -> Carried:
    """What every part and net of it carries."""
    assert subject.circuit is not None
    return carried_of(subject.brief, subject.circuit, subject.library, planned(subject))


def planned(subject: Subject) -> list[Planned]:
    """Brains by name with chip and plan."""
    rows = [(own.share.brain, own.chip, own.plan) for own in subject.brains]
    return [(brain.name, chip, plan) for brain, chip, plan in rows if brain is not None]


def when(energised: Energised, state: int) -> str:
    """A state as the beginning of a sentence."""
    return words_of(energised.states[state], energised.ways)


def named(energised: Energised, ref: str) -> str:
    """A part with what it is for."""
    component = energised.device.by_ref.get(ref)
    return f"{ref} ({component.purpose})" if component else ref


def about(energised: Energised, *refs: str) -> tuple[str, ...]:
    """What a finding about parts is about: the parts and their things."""
    components = [energised.device.by_ref[ref] for ref in refs if ref]
    things = [thing(c.thing) for c in components if c.thing]
    return (*(f"part:{c.ref}" for c in components), *dict.fromkeys(things))
