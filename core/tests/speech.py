"""Phrases in English, for tests that read what is said."""

from __future__ import annotations

from asketa_core import words_in

english = words_in("en")
