"""How large the belly is in pregnancy."""

from __future__ import annotations

import numpy as np

from asketa_core.body.measures import Body
from asketa_core.body.pregnancy import extra_depth_cm
from asketa_core.units import Array

DEPTH_SHARE, WIDTH_SHARE, HEIGHT_SHARE = 0.08, 0.085, 0.075
"""Half-axes of the belly's ellipsoid before pregnancy as shares of stature (judgement)."""

WIDTH_GROWS, HEIGHT_GROWS = 0.35, 0.25
"""How much of the growth in depth the other half-axes take (judgement)."""


def half_axes_cm(body: Body) -> Array:
    """Forward, sideways and along the spine, (3,)."""
    growth = 0.0
    if body.pregnancy is not None:
        growth = extra_depth_cm(body.pregnancy.week, body.pregnancy.twins)
    s = body.stature_cm
    return np.array(
        [DEPTH_SHARE * s + growth, WIDTH_SHARE * s + WIDTH_GROWS * growth, HEIGHT_SHARE * s + HEIGHT_GROWS * growth]
    )
