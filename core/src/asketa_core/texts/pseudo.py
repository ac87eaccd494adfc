"""A language nobody speaks, in which nothing said by the catalogue has a plain letter left: what still has one stands
outside of it. Readable enough to find one's way."""

from __future__ import annotations

PSEUDO = "en-XA"
"""The name locales reserve for it."""

_PLAIN = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz"
_MARKED = "ÅƁÇÐÉƑĜĤÎĴĶĻṀÑÖÞǪŔŠŢÛṼŴẊÝŽåƀçðéƒĝĥîĵķļɱñöþǫŕšţûṽŵẋýž"
_LETTERS = str.maketrans(_PLAIN, _MARKED)


def disguised(text: str) -> str:
    """A text with every plain letter marked."""
    return text.translate(_LETTERS)
