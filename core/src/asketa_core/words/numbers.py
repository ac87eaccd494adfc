"""Numbers as people read them: angles to 5°, heights to the centimetre, never contradicting a verdict."""

from __future__ import annotations

ANGLE_STEP = 5.0


def rounded(value: float, unit: str) -> float:
    if unit == "deg":
        return ANGLE_STEP * round(value / ANGLE_STEP)
    if unit == "share":
        return round(100 * value)
    return round(value, 1) if unit in ("ratio", "minutes") else round(value)


MINUS = "\N{MINUS SIGN}"


def _written(number: float, unit: str) -> str:
    return f"{number:g}{unit_sign(unit)}".replace("-", MINUS)


def unit_sign(unit: str) -> str:
    return {"deg": "°", "cm": " cm", "percent": " %", "share": " % of body weight", "ratio": " ×", "minutes": " min"}[
        unit
    ]


def plain(value: float, unit: str) -> str:
    """A value on its own."""
    number = rounded(value, unit)
    return _written(number or 0.0, unit)


def exact(value: float, unit: str) -> str:
    """A boundary as it was set, without rounding to 5°."""
    shown = round(100 * value, 1) if unit == "share" else round(value, 1)
    return _written(shown, unit)


def against(value: float, boundary: float, unit: str, above_is_beyond: bool, beyond: bool) -> str:
    """A value beside the boundary it was compared with.

    Rounding may not put a value on the other side of its boundary: then it is 'just over' or 'just
    under' the boundary instead.
    """
    number = rounded(value, unit)
    edge = 100 * boundary if unit == "share" else boundary
    looks_beyond = number > edge if above_is_beyond else number < edge
    if looks_beyond != beyond:
        over = beyond == above_is_beyond
        return f"just {'over' if over else 'under'} {exact(boundary, unit)}"
    return _written(number or 0.0, unit)
