"""What facts of records are made of."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal, TypeVar

from pydantic import Field, model_validator

from asketa_core.datafiles import Record

Day = Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), lt=dt.date(2200, 1, 1))]
"""A date that can be reckoned with. Whether it can be true is asked when it is entered: see ``implausible.py``."""

TriState = Literal["yes", "no", "unknown"]
YesNo = Literal["yes", "no"]

Ticked = TypeVar("Ticked")
Ticks = Annotated[tuple[Ticked, ...], Field(max_length=20)]
"""A list gone through together. Empty: not asked yet; ``none``, where it is among the answers, stands alone."""


class NoFacts(Record):
    """A kind of record that says all by being there; how it is today is asked at arrival."""


class WithSymptoms(Record):
    """Facts of a kind of record that asks at arrival for what may not wait. Empty: not asked yet."""

    symptoms_now: tuple[str, ...] = ()

    @model_validator(mode="after")
    def no_symptom_stands_alone(self) -> WithSymptoms:
        if "none" in self.symptoms_now and len(self.symptoms_now) > 1:
            raise ValueError("'none' cannot stand beside symptoms")
        return self

    @property
    def alarming(self) -> YesNo:
        """Whether something happens now; what nobody asked about counts as no, and is asked."""
        return "yes" if set(self.symptoms_now) - {"none"} else "no"
