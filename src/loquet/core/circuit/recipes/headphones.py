"""A headphone socket with its amplifier: the sound of the speaker, or of the sound converter, on
both ears.
"""

from loquet.core.brief import Thing, plain_name
from loquet.core.brief.kinds.headphones import Headphones
from loquet.core.brief.kinds.sound_converter import SoundConverter
from loquet.core.brief.kinds.speaker import Speaker
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near


def recipe(thing: Headphones, bench: Bench) -> Fragment:
    """Coupling, amplifier, socket; the tip's contact tells whether a plug is in, and turns the
    amplifier off while none is: its output swings about ground, and lies at the line that the brain
    reads as long as the contact is closed. Raises RecipeNotPossible where nothing makes sound.
    """
    drawer, role, rail = Drawer("sound", bench.parts), thing.role(), bench.rail(thing).net
    socket, amplifier = thing.bodies()[0].part, f"{role} amplifier"
    part = bench.pick("headphone amplifier")
    tip, ring, pump = (plain_name(thing.role(word)) for word in ("tip", "ring", "pump"))
    contact, detect = plain_name(thing.role("contact")), plain_name(thing.role("detect"))
    enable = detect if thing.detection else rail
    nets = {"ground": GROUND, "supply": rail, "enable": enable, "pump": pump}
    nets |= {"out left": tip, "out right": ring}
    coupled = {side: plain_name(thing.role(f"{side} coupled")) for side in ("left", "right")}
    nets |= {f"in {side}": net for side, net in coupled.items()}
    jack = {"sleeve": GROUND, "tip": tip, "ring": ring}
    if thing.detection:
        jack["tip contact"] = contact
    found: list[Component] = [
        drawer.named(role, socket, ("headphones", "Headphone socket"), jack),
        drawer.named(
            amplifier,
            part.id,
            (part.short, "Amplifier of the headphones"),
            nets,
        ),
        drawer.quiet(amplifier, part.id, rail, "1 µF"),
        drawer.capacitor(
            f"{role} pump",
            "1 µF",
            "Holds the supply below ground",
            (pump, GROUND),
            Near(amplifier, "pump"),
        ),
    ]
    for side, signal in sound_for(thing, bench).items():
        near = Near(amplifier, f"in {side}")
        words = ("1 µF", "Keeps steady volts from the amplifier")
        found.append(
            drawer.capacitor(f"{role} coupling {side}", *words, (signal, coupled[side]), near)
        )
    if thing.detection:
        near = Near(role, "tip contact")
        words_up = "Tells that a plug is in: the tip's contact opens"
        swings = "Keeps what swings below ground from the line while the plug is pulled"
        found += [
            drawer.resistor(f"{role} hold", "100 kΩ", words_up, (rail, detect), near),
            drawer.resistor(f"{role} contact", "10 kΩ", swings, (contact, detect), near),
        ]
    return Fragment(tuple(found))


def sound_for(thing: Headphones, bench: Bench) -> dict[str, str]:
    """The nets that carry the sound of both sides."""
    maker: Thing | None = next((t for t in bench.brief.things if isinstance(t, Speaker)), None)
    if maker is not None:
        return dict.fromkeys(("left", "right"), plain_name(maker.role("filtered")))
    maker = next((t for t in bench.brief.things if isinstance(t, SoundConverter)), None)
    if maker is None:
        limit = "nothing makes a sound that it could carry"
        raise RecipeNotPossible(thing.name, limit, "Add a speaker or a sound converter.")
    return {side: plain_name(maker.role(side)) for side in ("left", "right")}


RECIPE = (Headphones, recipe)
