"""How a part is tried before it is soldered: what dies in the bag is found on the bench and not on
the board.
"""

TRIALS = {
    "resistive stick": (
        "Ohms from each output to ground: half of the whole at rest, down to nothing and up to the"
        " whole at the ends, without jumps."
    ),
    "magnetic stick": (
        "On 3.3 V from a bench supply with 20 mA limit: each output at half the supply at rest, and"
        " it follows the lever."
    ),
    "magnetic trigger": (
        "On 3.3 V from a bench supply with 20 mA limit: the output follows the pull."
    ),
    "slide trigger": "Ohms from its output to ground follow the pull without jumps.",
    "slider": "Ohms from its output to ground follow the knob without jumps.",
    "encoder": "Continuity of a and b to common comes and goes, one after the other.",
    "buzzer": "Ohms of its coil as its drawing says; a click from a fresh cell.",
    "light": "Diode test of a meter: it glows, and only one way round.",
    "cell holder": "A cell in it: its volts at both pads, plus where it says.",
    "coin holder": "A cell in it: its volts at both pads, plus where it says.",
    "18650 holder": (
        "A cell in it: its volts at both pads, plus where it says. Do not short them: it can burn."
    ),
    "slide switch": "Continuity from the middle to one end, then to the other.",
    "card socket": (
        "A card goes in, stays, and comes out; continuity of every contact through a card with"
        " wires."
    ),
    "header": "Straight posts, all there.",
    "microcontroller": "One of the bag in a socket or on a carrier: it answers the probe.",
    "ready module": "On its own plug: it answers, and its rail measures what it should.",
}


def trial_of(kind: str) -> str:
    """How one of a kind is tried; empty where it is too cheap to try, and a spare does it."""
    return TRIALS.get(kind, "")
