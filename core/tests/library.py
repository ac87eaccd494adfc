"""The standard library in short names, for tests."""

from __future__ import annotations

from asketa_core import standard_library

LIBRARY = standard_library()
variation, variations, families = LIBRARY.variation, LIBRARY.variations, LIBRARY.families
