"""What the blocks of a circuit are called, in the order in which they are read."""

TITLES = {
    "chip": "Chip core",
    "module": "Ready module",
    "host": "Host computer",
    "power": "Sources to rails",
    "buttons": "Controls",
    "axes": "Axes outside the chip",
    "bus": "Two-wire bus",
    "crystal": "Crystals",
    "screen": "Screen",
    "buzzer": "Sounder",
    "light": "Indicator light",
    "lights": "Lights in chains and fields",
    "sound": "Sound",
    "senses": "Sensors",
    "card": "Memory card",
    "ports": "Ports",
    "link": "Links between boards",
    "service": "Programming and test",
}


def title_of(block: str) -> str:
    """The title of a block; one without its own is called by its name."""
    return TITLES.get(block, block[:1].upper() + block[1:])


def place_of(block: str) -> int:
    """Where a block stands in the order."""
    return list(TITLES).index(block) if block in TITLES else len(TITLES)
