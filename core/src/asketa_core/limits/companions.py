"""What comes with the four: stiff hamstrings with a low back that minds, and a pinching groin."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping

from asketa_core.clientfile import ClientFile, GroinPinch, Hamstrings


def groin_context(entry: GroinPinch, client: ClientFile, date: dt.date) -> Mapping[str, object]:
    """Everything the rows of ``data/limits/groin_pinch.yaml`` ask about."""
    return {"angle": "known" if entry.facts.straight_deg is not None else "unknown"}


def hamstrings_context(entry: Hamstrings, client: ClientFile, date: dt.date) -> Mapping[str, object]:
    """Everything the rows of ``data/limits/hamstrings.yaml`` ask about."""
    return {"low_back": entry.facts.low_back, "tingling": entry.facts.leg_tingling}
