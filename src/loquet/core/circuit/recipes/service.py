"""Programming header and test points: what the bench needs to reach."""

from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment

PORT_ORDER = (SUPPLY, "DEBUG_CLOCK", GROUND, "DEBUG_DATA", "RESET")


def programming_header() -> Fragment:
    """Supply sense, clock, ground, data, reset: ground in the middle, beside both fast lines."""
    pads = {str(index + 1): net for index, net in enumerate(PORT_ORDER)}
    return Fragment(
        (
            Component(
                role="port",
                part="header-5-way",
                block="service",
                value="programming",
                purpose="Programming header",
                pads=pads,
            ),
        )
    )


def test_points() -> Fragment:
    """Rail and ground, for the meter at first power-up."""
    rows = (("rail", SUPPLY), ("ground", GROUND))
    return Fragment(
        tuple(
            Component(
                role=f"test {name}",
                part="test-point-round",
                block="service",
                value=net,
                purpose=f"Test point of the {name}",
                pads={"1": net},
            )
            for name, net in rows
        )
    )
