"""How a practice writes things."""

from __future__ import annotations

from zoneinfo import available_timezones

from ninja import Router

from common.permissions import Permission
from practices import services
from practices.schemas import SettingsIn, SettingsOut
from practices.tenancy import PracticeId, PracticeRequest, in_practice

router = Router(tags=["practice"])


@router.get("/settings", response=SettingsOut, operation_id="practiceSettings")
@in_practice(Permission.PRACTICE_READ)
def practice_settings(request: PracticeRequest, practice_id: PracticeId) -> SettingsOut:
    return SettingsOut.of(request.practice)


@router.put("/settings", response=SettingsOut, operation_id="changePracticeSettings")
@in_practice(Permission.PRACTICE_WRITE)
def change_practice_settings(request: PracticeRequest, practice_id: PracticeId, payload: SettingsIn) -> SettingsOut:
    return SettingsOut.of(services.change_settings(request.practice, request.user, payload))


@router.get("/time-zones", response=list[str], operation_id="timeZones")
@in_practice(Permission.PRACTICE_READ)
def time_zones(request: PracticeRequest, practice_id: PracticeId) -> list[str]:
    """Every time zone this machine knows."""
    return sorted(
        zone for zone in available_timezones() if "/" in zone and not zone.startswith(("Etc/", "posix", "right"))
    )
