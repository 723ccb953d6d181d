"""`loquet quote`: a brief file to what its devices cost at the door, without a database."""

from pathlib import Path

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design
from loquet.core.ordering.landed import CURVE, Landed, Wanted, curve
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.core.release import release
from loquet.costing import landed_at
from loquet.reports.plans import Report, brief_at
from loquet.standins.file_inspection import Inspection, inspect


def report_quote(path: Path) -> tuple[int, Report]:
    """The cost at the door with every house for the brief's quantity, and the curve: 0, or 2 where
    nothing can be ordered yet. Raises Unusable.
    """
    library, brief = bundled_library(), brief_at(path)
    try:
        design = bring_up_to_date(Design(brief=brief), library)
    except (PartError, StageRefused, RecipeNotPossible, NoRoom) as error:
        raise Unusable(str(error)) from None
    made = release(design, library)
    if not made.ready:
        stops = [f.sentence for f in made.findings if f.severity == "stop"]
        return 2, {"ready": False, "stops": stops, "houses": []}
    houses = []
    for house in library.houses.values():
        seen = inspect(made.files, house)

        def cost(n: int, seen: Inspection = seen, house_id: str = house.id) -> Landed:
            return landed_at(library.house(house_id), seen, design, library, Wanted(), n)

        rows = curve([*CURVE, brief.quantity], cost)
        houses.append(
            {
                "house": house.name,
                "complaints": list(seen.complaints),
                **cost(brief.quantity).model_dump(mode="json"),
                "curve": [row.model_dump(mode="json") for row in rows],
            }
        )
    return 0, {"ready": True, "simulated": True, "stops": [], "houses": houses}


def say_quote(report: Report) -> str:
    """The costs in lines for a person."""
    lines = [f"stop  {words}" for words in report["stops"]]
    for house in report["houses"]:
        lines.append(
            f"{house['house']} (simulated): {house['quantity']} devices"
            f" {house['total_cents'] / 100:.2f} €, each {house['each_cents'] / 100:.2f} €"
        )
        lines += [f"  {what}: {cents / 100:.2f} €" for what, cents in house["lines"]]
        lines += [f"  complaint: {words}" for words in house["complaints"]]
        points = ", ".join(f"{p['quantity']}: {p['each_cents'] / 100:.2f}" for p in house["curve"])
        lines.append(f"  each in € by quantity: {points}")
    return "\n".join(lines)
