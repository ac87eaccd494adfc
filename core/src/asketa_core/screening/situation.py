"""A client on a date in a room: what screening starts from."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from asketa_core.body.measures import Body
from asketa_core.body.ranges import Ranges
from asketa_core.client.holds import SlotValue
from asketa_core.clientfile import ClientFile, Person
from asketa_core.limits.judge import Rules
from asketa_core.limits.model import Limit
from asketa_core.poses.library import Library, Variation, standard_library
from asketa_core.props.kinds import Room, generic_room
from asketa_core.records.calendar import with_todays_answers
from asketa_core.records.catalogue import limits_on
from asketa_core.records.registry import kind_of
from asketa_core.setup.grid import NoGrid, grid_axes, lengths_of
from asketa_core.setup.screened import Memo, Screened
from asketa_core.setup.search import rules_of, screen
from asketa_core.units import SIDES, Side

TYPICAL_STATURE_CM = 170.0
"""The body the library shows when it shows nobody in particular."""


@dataclass(frozen=True, slots=True)
class Situation:
    """Everything a screening depends on, worked out once for a client, a date and a room."""

    client: ClientFile
    date: dt.date
    room: Room
    body: Body
    ranges: Ranges
    limits: tuple[Limit, ...]
    library: Library = field(default_factory=standard_library)
    memo: Memo = field(default_factory=dict, compare=False, repr=False)

    @staticmethod
    def of(client: ClientFile, date: dt.date, room: Room, library: Library | None = None) -> Situation:
        """``InputError`` when the stature is missing: nothing can be computed without it."""
        known = client.as_of(date)
        ranges = known.latest_ranges(date)
        return Situation(
            known, date, room, known.latest_body(date), ranges, tuple(limits_on(known, date, ranges)),
            library or standard_library(),
        )  # fmt: skip

    def on(self, date: dt.date) -> Situation:
        """The same client and room on another date."""
        client = with_todays_answers(self.client, self.date, date)
        ranges = client.latest_ranges(date)
        limits = tuple(limits_on(client, date, ranges))
        return replace(self, client=client, date=date, ranges=ranges, limits=limits, memo={})

    @staticmethod
    def without_body(client: ClientFile, date: dt.date) -> Situation:
        """A situation in which nothing can be screened yet, for what depends on records alone."""
        known = client.as_of(date)
        ranges = known.latest_ranges(date)
        return Situation(
            known, date, Room(props=()), Body.of_average_adult(), ranges, tuple(limits_on(known, date, ranges))
        )

    @staticmethod
    def of_nobody(stature_cm: float = TYPICAL_STATURE_CM, ranges: Ranges | None = None) -> Situation:
        """A body without records in a generic room, for the library's own figures."""
        nobody = ClientFile(format="asketa-client", version=1, client=Person(id="nobody"))
        own = ranges if ranges is not None else Ranges.from_measured({})
        today = dt.date(2000, 1, 1)
        return Situation(
            nobody, today, generic_room(), Body(stature_cm, 70.0), own, tuple(limits_on(nobody, today, own))
        )

    def screen(
        self, variation: Variation, side: Side, last_used: Mapping[str, SlotValue] | None = None
    ) -> Screened | NoGrid:
        """Every set-up, to be judged. In shared shapes the answer is the same for both sides."""
        worked = SIDES[0] if variation.shared else side
        choices = self.starting_choices(side)
        found = screen(variation, worked, self.body, self.ranges, self.room, self.limits, choices, self.memo)
        if isinstance(found, NoGrid):
            return found
        found = found if worked is side else replace(found, side=side)
        return found if last_used is None else self.remembering(found, last_used)

    @property
    def rules(self) -> Rules:
        """What everything is judged by, in numbers."""
        return rules_of(self.body, self.ranges, self.limits, self.memo)

    def remembering(self, screened: Screened, last_used: Mapping[str, SlotValue]) -> Screened:
        """The same grid with what was last used preferred among equals, and the foot held as it was."""
        choices = {name: value.choice for name, value in last_used.items() if value.choice is not None}
        return screened.remembering(last_used, self.starting_choices(screened.side) | choices)

    def combinations(self, variation: Variation, side: Side) -> int:
        """How many set-ups would be tried, before the room's stock is counted; 0 when a slot can't be met."""
        axes = grid_axes(variation, side, self.body, self.ranges, self.room, {}, self.memo)
        return 0 if isinstance(axes, NoGrid) else math.prod(lengths_of(axes))

    def starting_choices(self, side: Side) -> dict[str, str]:
        """Where two-way trials start for this side: a sore inner meniscus is kinder with the foot drawn
        up, everything else at rest."""
        return {
            slot: choice
            for entry in self.client.entries
            if entry.side is side
            for slot, choice in kind_of(entry).starting_choices(entry.facts).items()
        }
