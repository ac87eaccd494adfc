"""Growth over the weeks of a pregnancy."""

from __future__ import annotations

import numpy as np

_DEPTH_WEEKS = (0.0, 12.0, 20.0, 28.0, 34.0, 40.0)
_DEPTH_CM = (0.0, 0.0, 4.0, 9.0, 13.0, 15.0)
_MASS_WEEKS = (0.0, 12.0, 20.0, 28.0, 36.0, 40.0)
_MASS_KG = (0.0, 1.0, 4.0, 7.5, 11.0, 12.5)
TWIN_FACTOR = 1.25


def extra_depth_cm(week: float, twins: bool = False) -> float:
    """Extra depth of the abdomen in cm at a week of pregnancy, linear between the table's weeks."""
    return float(np.interp(week, _DEPTH_WEEKS, _DEPTH_CM)) * (TWIN_FACTOR if twins else 1.0)


def extra_mass_kg(week: float) -> float:
    """Extra body mass in kg at a week of pregnancy, linear between the table's weeks."""
    return float(np.interp(week, _MASS_WEEKS, _MASS_KG))
