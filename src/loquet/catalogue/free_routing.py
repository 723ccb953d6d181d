"""Chips whose blocks can be routed to any pin: the functions that the data set leaves unsaid are
spelt out from its block lists.
"""

from typing import Any

from loquet.core.parts import AlternateFunction

FREE = "any pin"
SIGNALS = {
    "twim": ("scl", "sda"),
    "spim": ("sck", "mosi", "miso"),
    "uarte": ("tx", "rx"),
    "pwm": ("out0", "out1", "out2", "out3"),
}


def nrf_functions(device: Any, gpio: dict[str, Any]) -> dict[str, tuple[AlternateFunction, ...]]:
    """Functions by port: converter inputs where the data set has them, serial blocks and pulse
    outputs on every pin, the debug pins.
    """
    routed = [
        AlternateFunction(peripheral=f"{driver['name']}{instance}", signal=signal, route=FREE)
        for driver in device.properties["driver"]
        if driver["name"] in SIGNALS
        for instance in driver.get("instance", ())
        for signal in SIGNALS[driver["name"]]
    ]
    found: dict[str, tuple[AlternateFunction, ...]] = {}
    for pin in gpio["gpio"]:
        port = f"P{pin['port']}.{int(pin['pin']):02d}"
        fixed = [
            AlternateFunction(
                peripheral=s["driver"] + s.get("instance", ""), signal=s["name"], route="fixed"
            )
            for s in pin.get("signal", [])
            if "driver" in s
        ]
        found[port] = (*fixed, *routed)
    found["SWDIO"] = (AlternateFunction(peripheral="debug", signal="swdio", route="fixed"),)
    found["SWDCLK"] = (AlternateFunction(peripheral="debug", signal="swdclk", route="fixed"),)
    found["D+"] = (AlternateFunction(peripheral="usbd", signal="dp", route="fixed"),)
    found["D-"] = (AlternateFunction(peripheral="usbd", signal="dm", route="fixed"),)
    return found
