"""The language of the command line."""

from __future__ import annotations

from asketa_core.texts import REFERENCE, words_in

ENGLISH = words_in(REFERENCE)
