"""What answers are made of: days, yes and no and not known, lists gone through together."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal, TypeVar

from pydantic import AfterValidator, Field

Day = Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), lt=dt.date(2200, 1, 1))]
"""A date that can be reckoned with. Whether it can be true is asked when it is entered: see ``records/implausible.py``."""

TriState = Literal["yes", "no", "unknown"]
YesNo = Literal["yes", "no"]

Professional = Literal["surgeon", "doctor", "physiotherapist", "midwife"]
"""Who treats a client, and whose dated word counts."""

Ticked = TypeVar("Ticked")


def _none_stands_alone(ticks: tuple[Ticked, ...]) -> tuple[Ticked, ...]:
    if "none" in ticks and len(ticks) > 1:
        raise ValueError("'none' cannot stand beside other ticks")
    return ticks


Ticks = Annotated[tuple[Ticked, ...], Field(max_length=20), AfterValidator(_none_stands_alone)]
"""A list gone through together. Empty: not asked yet; ``none``, where it is among the answers, stands alone."""
