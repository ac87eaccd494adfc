"""What the web client keeps a copy of is what the server and the core say now."""

from __future__ import annotations

import json
import subprocess
import sys

from django.conf import settings
from django.test import SimpleTestCase
from ninja.responses import NinjaJSONEncoder

from asketa_core import palettes
from config.api import api


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
        self.assertEqual(stored, json.loads(ran.stdout), "run: ./asketa api-types")
