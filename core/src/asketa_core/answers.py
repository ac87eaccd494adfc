"""What answers are made of: days, yes and no and not known, lists gone through together."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal, TypeVar

from pydantic import Field

Day = Annotated[dt.date, Field(ge=dt.date(1900, 1, 1), lt=dt.date(2200, 1, 1))]
"""A date that can be reckoned with. Whether it can be true is asked when it is entered: see ``records/implausible.py``."""

TriState = Literal["yes", "no", "unknown"]
YesNo = Literal["yes", "no"]

Ticked = TypeVar("Ticked")
Ticks = Annotated[tuple[Ticked, ...], Field(max_length=20)]
"""A list gone through together. Empty: not asked yet; ``none``, where it is among the answers, stands alone."""
