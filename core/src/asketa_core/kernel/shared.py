"""Figures the kernel shares with the rest of the core."""

from __future__ import annotations

TOUCHING = 1e-9
"""Figures are inclusive: a value this close beyond one still keeps it."""

GRAVITY = 9.81

STRAIGHT_KNEE_DEG = 3.0
"""Below this bend computed points leave the thigh's turning to the toes: the shin no longer shows it."""

LUMBAR_SHARE = 0.6
"""Part of the spine's flexion taken by the low back; the rest is the upper back's (judgement)."""

ROLL_BEHIND_KNEE_CM = 10.0
"""A roll lies so far behind the knee (judgement)."""

FLAG_SIZE = 1.0
"""How large a caution is that no figure measures."""

PURPOSE_LEAST, PURPOSE_MOST = 70.0, 95.0
"""The share of the client's range that is wanted, per cent."""

PURPOSE_TARGET_PERCENT = 85.0
"""What is best of it, and what a set-up of a pose for strength or rest keeps: nothing is a share of a range there."""
