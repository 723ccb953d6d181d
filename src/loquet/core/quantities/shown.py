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


def show_si(value: float, unit: str, digits: int = 3) -> str:
    """A value with its SI prefix and unit, to `digits` significant figures."""
    if value == 0:
        return f"0 {unit}"
    for factor, prefix in PREFIXES:
        if abs(value) >= factor * 0.9999999:
            return f"{value / factor:.{digits}g} {prefix}{unit}"
    factor, prefix = PREFIXES[-1]
    return f"{value / factor:.{digits}g} {prefix}{unit}"
