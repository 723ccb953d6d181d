"""Numbers as the trade writes them: `4.7 kΩ`, `100 nF`, `25 mA`."""

PREFIXES = (
    (1e9, "G"),
    (1e6, "M"),
    (1e3, "k"),
    (1.0, ""),
    (1e-3, "m"),
    (1e-6, "µ"),
    (1e-9, "n"),
    (1e-12, "p"),
)


def read_si(text: str, unit: str) -> float | None:
    """The value of `4.7 kΩ` in its unit, or nothing where the text is not a number with a prefix of
    SI and that unit.
    """
    number, _, tail = text.strip().partition(" ")
    factors = {prefix: factor for factor, prefix in PREFIXES}
    if not tail.endswith(unit) or tail[: -len(unit)] not in factors:
        return None
    try:
        return float(number) * factors[tail[: -len(unit)]]
    except ValueError:
        return None


def show_si(value: float, unit: str, digits: int = 3) -> str:
    """A value with its SI prefix and unit, to `digits` significant figures."""
    if value == 0:
        return f"0 {unit}"
    for factor, prefix in PREFIXES:
        if float(f"{abs(value) / factor:.{digits}g}") >= 1:
            return f"{value / factor:.{digits}g} {prefix}{unit}"
    factor, prefix = PREFIXES[-1]
    return f"{value / factor:.{digits}g} {prefix}{unit}"
