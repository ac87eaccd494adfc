"""What a kind of record may look at of a client besides the record itself."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

from asketa_core.client.daily import DailyFact, Settings
from asketa_core.client.holds import Response
from asketa_core.client.measures import BodyQuantity, RangeMeasure
from asketa_core.units import Side


@dataclass(frozen=True, slots=True)
class News:
    """Something that happened and may reopen what was settled: a fall, new pain; ``side`` and ``joint`` where it is about
    one."""

    what: str
    date: dt.date | None
    side: Side | None = None
    joint: str | None = None

    def concerns(self, joint: str, side: Side | None) -> bool:
        """Whether it may be about one joint: what was not placed may be about any."""
        return self.joint in (None, joint) and self.side in (None, side)


class Known(Protocol):
    """A client's file as a kind of record sees it."""

    @property
    def daily(self) -> Sequence[DailyFact]: ...

    @property
    def ranges(self) -> Sequence[RangeMeasure]: ...

    @property
    def responses(self) -> Sequence[Response]: ...

    @property
    def settings(self) -> Settings: ...

    def latest_measure(self, quantity: BodyQuantity, date: dt.date) -> float | None: ...

    def news(self, date: dt.date) -> Sequence[News]: ...
