"""What a brain draws at full speed with its peripherals running, by family, in mA: from memory of
the makers' data sheets, and said so.
"""

USUAL_MA = 8.0
USUAL = "usual current of a small chip at full speed; from memory"
AT_SPEED_MA = {
    "stm32c0": 6.0,
    "stm32f0": 20.0,
    "stm32f1": 36.0,
    "stm32f2": 50.0,
    "stm32f3": 45.0,
    "stm32f4": 60.0,
    "stm32f7": 120.0,
    "stm32g0": 8.0,
    "stm32g4": 30.0,
    "stm32h5": 60.0,
    "stm32h7": 150.0,
    "stm32l0": 6.5,
    "stm32l1": 10.0,
    "stm32l4": 8.0,
    "stm32l5": 11.0,
    "stm32u0": 4.0,
    "stm32u5": 14.0,
    "stm32wb": 9.0,
    "stm32wl": 7.0,
    "nrf52": 6.0,
    "nrf53": 8.0,
    "atmega": 9.0,
    "rp": 25.0,
    "samd": 7.0,
    "fellbeck-c": 25.0,
    "fellbeck-h": 7.0,
}


def brain_ma(part: str) -> tuple[float, str]:
    """The current of a brain by the name of its part, and where that is from."""
    for family, current in AT_SPEED_MA.items():
        if part.startswith(family):
            return current, f"{family} at its highest clock, 3.3 V; from memory of its data sheet"
    return USUAL_MA, USUAL
