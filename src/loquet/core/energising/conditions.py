"""The words under which something of a device is so or not in a state: what elements are `when`."""

METERED = "metered"
"""Power is off and a meter looks at it."""
BY_DUTY = "lights and sounders by their duty"
"""What no pin drives in a state draws as much as it does on the average."""
PARTS_HIGH, PARTS_LOW = "parts drive high", "parts drive low"


def switched(thing: str, on: bool) -> str:
    """A slide switch stands at one of its ends."""
    return f"{thing} is {'on' if on else 'off'}"


def held(role: str, ends: tuple[str, str]) -> str:
    """A contact is closed by a finger."""
    return f"{role} {ends[0]} {ends[1]} is held"


def drives(brain: str, high: bool) -> str:
    """All lines that a brain drives are high, or low."""
    return f"{brain} drives {'high' if high else 'low'}"


def absent(source: str) -> str:
    """A source is not there: what it stands in for, such as a host that is off, takes a little."""
    return f"{source} is absent"


def pulls(brain: str) -> str:
    """A brain pulls the lines of its two-wire bus low."""
    return f"{brain} pulls its bus low"


def passes(switch: str) -> str:
    """A brain has switched a rail on."""
    return f"{switch} is on"


def feeds(source: str) -> str:
    """A source is there."""
    return f"{source} is there"


def pressed(latch: str) -> str:
    """The button of a latch is held."""
    return f"{latch} is pressed"


def holds(latch: str) -> str:
    """A brain holds its latch on."""
    return f"{latch} is held on"
