"""Numbers as people read them: angles to 5°, heights to the centimetre, never contradicting a verdict."""

from __future__ import annotations

from asketa_core.texts import Phrase, say

ANGLE_STEP = 5.0
SHARES = ("share", "leg_share", "upper_share")
"""Units of values between 0 and 1 that are read as per cent of something."""


def rounded(value: float, unit: str) -> float:
    if unit == "deg":
        return ANGLE_STEP * round(value / ANGLE_STEP)
    if unit in SHARES:
        return round(100 * value)
    return round(value, 1) if unit in ("ratio", "minutes") else round(value)


def step_of(unit: str) -> float:
    """To how much values of a unit are rounded when they are read."""
    return ANGLE_STEP if unit == "deg" else 0.1 if unit in ("ratio", "minutes") else 0.01 if unit in SHARES else 1.0


def _written(number: float, unit: str) -> Phrase:
    return say("units", unit, n=number or 0.0)


def plain(value: float, unit: str) -> Phrase:
    """A value on its own."""
    return _written(rounded(value, unit), unit)


def exact(value: float, unit: str) -> Phrase:
    """A boundary as it was set, to the whole degree: half degrees come from shares of a range."""
    shown = round(100 * value, 1) if unit in SHARES else round(value, 0 if unit == "deg" else 1)
    return _written(shown, unit)


def against(value: float, boundary: float, unit: str, above_is_beyond: bool, beyond: bool) -> tuple[Phrase, bool]:
    """A value beside the boundary it was compared with, and whether that says the boundary already.

    Rounding may not put a value on the other side of its boundary: then it is 'just over' or 'just
    under' the boundary instead.
    """
    number = rounded(value, unit)
    edge = 100 * boundary if unit in SHARES else boundary
    looks_beyond = number > edge if above_is_beyond else number < edge
    if looks_beyond != beyond:
        over = beyond == above_is_beyond
        return say("numbers", "just_over" if over else "just_under", limit=exact(boundary, unit)), True
    return _written(number, unit), False
