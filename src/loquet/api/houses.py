"""Board houses of one's own: typed, or learnt from the quotes that they sent."""

from typing import Annotated, Any

from fastapi import APIRouter
from pydantic import BaseModel, Field, ValidationError

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.design import Design
from loquet.core.ordering.house import House
from loquet.core.ordering.learning import Learnt, QuoteSeen, TooFewQuotes, learn, prices_in
from loquet.core.shelf.faults import PartFault, house_faults
from loquet.core.shelf.pack import SORTS, part_faults
from loquet.store import shelf

router = APIRouter(prefix="/api/shelf", tags=["shelf"])


class HouseRow(BaseModel):
    """A house on the shelf; `version` 0 ships with Loquet."""

    house: House
    version: int


@router.get("/houses")
def get_houses(session: SessionNow, context: ContextNow) -> list[HouseRow]:
    """Those of one's own, then the simulated ones."""
    own = [
        HouseRow(house=House.model_validate_json(row.content), version=row.version)
        for row in shelf.rows_now(session, "house")
    ]
    bundled = (HouseRow(house=house, version=0) for house in context.library.houses.values())
    return [*own, *bundled]


class TypedHouse(BaseModel):
    """A house as it was typed, and the version that was seen (0: new)."""

    house: dict[str, Any]
    version: Annotated[int, Field(ge=0)] = 0


@router.post("/house/look")
def look_at_house(given: TypedHouse) -> list[PartFault]:
    """What is wrong with a house while it is typed."""
    try:
        return list(house_faults(House.model_validate(given.house)))
    except ValidationError as error:
        return part_faults(error)


@router.put("/house")
def keep_house(given: TypedHouse, session: SessionNow) -> HouseRow:
    """Keep a house of one's own; raises Refused for one that cannot be, ShelfConflict."""
    faults = look_at_house(given)
    if faults:
        raise Refused(f"{faults[0].problem}.", faults[0].way_out, place=faults[0].field)
    house = House.model_validate(given.house)
    if not house.id.startswith(SORTS["house"]):
        raise Refused(f"'{house.id}' is no name of a house of one's own.", "Call it house/NAME.")
    row = shelf.put_entry(session, house, given.version, AUTHOR)
    return HouseRow(house=house, version=row.version)


class QuotesSeen(BaseModel):
    """Quotes as they were typed."""

    quotes: Annotated[list[QuoteSeen], Field(max_length=60)]


class LearntView(BaseModel):
    """What they tell: each price with its words."""

    learnt: Learnt
    words: dict[str, str]


@router.post("/house/learn")
def learn_house(given: QuotesSeen) -> LearntView:
    """Prices that fit quotes best; raises Refused for too few."""
    try:
        learnt = learn(given.quotes)
    except TooFewQuotes as error:
        raise Refused(str(error), "Type one more, of another size or quantity.") from None
    return LearntView(
        learnt=learnt, words={price.name: price.words for price in prices_in(given.quotes)}
    )


def houses_for(session: SessionNow, context: ContextNow, design: Design) -> list[House]:
    """Every house that can be asked, its prices in euro: the chosen one as the project took it,
    those of one's own as they are now, the simulated ones.
    """
    own = {house.id: house.in_euro for house in shelf.own_houses(session).values()}
    return list({**own, **context.known(design).houses}.values())
