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
