"""What the web client keeps a copy of is what the server and the core say now."""

from __future__ import annotations

import json
import subprocess
import sys

from django.conf import settings
from django.test import SimpleTestCase
from ninja.responses import NinjaJSONEncoder
from shapely import Polygon

from asketa_core import palettes
from config.api import api

DRAWN_APART = 0.25
"""How far two outlines of one body may lie apart, in units of the map: which points simplifying keeps is rounding's."""


class Types(SimpleTestCase):
    def test_stored_schema_is_current(self) -> None:
        stored = json.loads((settings.ROOT / "web" / "src" / "api" / "schema.json").read_text(encoding="utf-8"))
        current = json.loads(json.dumps(api.get_openapi_schema(), cls=NinjaJSONEncoder))
        self.assertEqual(stored, current, "run: ./asketa api-types")

    def test_stored_palettes_are_current(self) -> None:
        stored = json.loads((settings.ROOT / "web" / "src" / "figure" / "palettes.json").read_text(encoding="utf-8"))
        self.assertEqual(stored, palettes(), "run: ./asketa api-types")

    def test_stored_body_map_is_current(self) -> None:
        stored = json.loads((settings.ROOT / "web" / "src" / "figure" / "body-map.json").read_text(encoding="utf-8"))
        ran = subprocess.run([sys.executable, "-m", "asketa_core", "body-map"], capture_output=True, check=True)
        current = json.loads(ran.stdout)
        mend = "run: ./asketa api-types"
        self.assertEqual(stored | {"path": None}, current | {"path": None}, mend)
        self.assertLess(_outline(stored["path"]).hausdorff_distance(_outline(current["path"])), DRAWN_APART, mend)


def _outline(path: str) -> Polygon:
    """The one ring of a body map's path."""
    assert path[0] == "M" and path.count("M") == 1 and path[-1] == "Z", "one ring"
    numbers = [float(each) for each in path[1:-1].split()]
    return Polygon(zip(numbers[::2], numbers[1::2], strict=True))
