"""`loquet quote`: a brief file to what its devices cost at the door, without a database."""

from collections.abc import Sequence
from pathlib import Path

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable, chosen_from, own_packs
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design
from loquet.core.lookup.project_library import project_library
from loquet.core.ordering.house import House
from loquet.core.ordering.landed import CURVE, Landed, Wanted, curve
from loquet.core.ordering.market import Market
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.core.release import release
from loquet.costing import landed_at
from loquet.reports.plans import Report, brief_at
from loquet.standins.file_inspection import Inspection, inspect


def report_quote(path: Path, packs: Sequence[Path] = ()) -> tuple[int, Report]:
    """The cost at the door with every house, those of packs too, for the brief's quantity, and the
    curve: 0, or 2 where nothing can be ordered yet. Raises Unusable.
    """
    own, brief = own_packs(packs), brief_at(path)
    begun = Design(brief=brief, choices=chosen_from(own, None))
    library, market = project_library(begun, bundled_library()), Market.of(own.supplier, own.price)
    try:
        design = bring_up_to_date(begun, library)
    except (PartError, StageRefused, RecipeNotPossible, NoRoom) as error:
        raise Unusable(str(error)) from None
    made = release(design, library)
    if not made.ready:
        stops = [f.sentence for f in made.findings if f.severity == "stop"]
        return 2, {"ready": False, "stops": stops, "houses": []}
    houses = []
    for house in (*(one.in_euro for one in own.house), *library.houses.values()):
        seen = inspect(made.files, house)

        def cost(n: int, seen: Inspection = seen, house: House = house) -> Landed:
            return landed_at(house, seen, design, library, market, Wanted(), n)

        rows = curve([*CURVE, brief.quantity], cost)
        houses.append(
            {
                "house": house.name,
                "simulated": house.simulated,
                "complaints": list(seen.complaints),
                **cost(brief.quantity).model_dump(mode="json"),
                "curve": [row.model_dump(mode="json") for row in rows],
            }
        )
    return 0, {"ready": True, "stops": [], "houses": houses}


def say_quote(report: Report) -> str:
    """The costs in lines for a person."""
    lines = [f"stop  {words}" for words in report["stops"]]
    for house in report["houses"]:
        name = f"{house['house']} (simulated)" if house["simulated"] else house["house"]
        lines.append(
            f"{name}: {house['quantity']} devices"
            f" {house['total_cents'] / 100:.2f} €, each {house['each_cents'] / 100:.2f} €"
        )
        lines += [f"  {what}: {cents / 100:.2f} €" for what, cents in house["lines"]]
        lines += [f"  complaint: {words}" for words in house["complaints"]]
        points = ", ".join(f"{p['quantity']}: {p['each_cents'] / 100:.2f}" for p in house["curve"])
        lines.append(f"  each in € by quantity: {points}")
    return "\n".join(lines)
