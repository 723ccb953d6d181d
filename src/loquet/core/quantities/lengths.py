"""Lengths: integer nanometres inside, millimetres for people."""

MM = 1_000_000
UM = 1_000


def nm_from_mm(length_mm: float) -> int:
    """Millimetres as whole nanometres, rounded to the nearest."""
    return round(length_mm * MM)


def mm_from_nm(length_nm: int) -> float:
    """Nanometres as millimetres; exact to the double nearest the decimal."""
    return length_nm / MM


def show_mm(length_nm: float) -> str:
    """A length the way people read it, to 0.01 mm: `0.20 mm`."""
    return f"{length_nm / MM:.2f} mm"


def fine_mm(length_mm: float) -> float:
    """A length in mm to the micrometre, for what is drawn and compared."""
    return round(float(length_mm), 3)


def caliper_mm(length_mm: float) -> float:
    """A length in mm to 0.01 mm, as a caliper tells it."""
    return round(float(length_mm), 2)
