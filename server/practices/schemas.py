"""What a practice is asked for and told about itself."""

from __future__ import annotations

import datetime as dt
from typing import Annotated
from zoneinfo import available_timezones

from ninja import Field
from pydantic import AfterValidator

from common import clock
from common.schemas import Input, Output
from practices.models import DateFormat, FirstDay, Practice, Units


def _known(zone: str) -> str:
    if zone not in available_timezones():
        raise ValueError("This is no time zone this machine knows.")
    return zone


class SettingsOut(Output):
    """How a practice writes things, and which day it has."""

    name: str
    units: Units
    date_format: DateFormat
    first_day_of_week: FirstDay
    time_zone: str
    today: dt.date
    """The day it is in the practice's time zone: every limit and every verdict is that of this day."""

    @classmethod
    def of(cls, practice: Practice) -> SettingsOut:
        return cls.model_validate(
            {
                "name": practice.name,
                "units": practice.units,
                "date_format": practice.date_format,
                "first_day_of_week": practice.first_day_of_week,
                "time_zone": practice.time_zone,
                "today": clock.today(practice.time_zone),
            }
        )


class SettingsIn(Input):
    name: str = Field(min_length=1, max_length=120)
    units: Units
    date_format: DateFormat
    first_day_of_week: FirstDay
    time_zone: Annotated[str, AfterValidator(_known)] = Field(max_length=60)
