"""A truth value is no number: JSON says `true`, and Python takes it for 1."""

from typing import Any, get_args

from pydantic import model_validator

from loquet.core.plain.frozen import Frozen

NUMBERS = {int, float}


class Counted(Frozen):
    """A value that a person writes: where a number is wanted, true and false are refused."""

    @model_validator(mode="before")
    @classmethod
    def no_truth_for_a_number(cls, data: Any) -> Any:
        """Look at the plain values before they are read."""
        if isinstance(data, dict):
            for name, value in data.items():
                field = cls.model_fields.get(name)
                if not isinstance(value, bool) or field is None:
                    continue
                takes = {field.annotation, *get_args(field.annotation)}
                if takes & NUMBERS and bool not in takes:
                    raise ValueError(f"{name} is {str(value).lower()}, and a number is wanted")
        return data
