"""Where things may come from, and what must not stand in files."""

from __future__ import annotations

import ast
import re
import subprocess
import sys
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

SERVER = Path(settings.ROOT) / "server"
FOLDERS = (
    "common",
    "accounts",
    "practices",
    "audit",
    "room",
    "clients",
    "measures",
    "library",
    "visits",
    "engine",
    "overview",
    "exchange",
    "demo",
    "config",
)
CORE_MODULES = {"asketa_core"}


def imports_of(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module is not None:
            found.add(node.module)
    return found


class Imports(SimpleTestCase):
    def test_the_server_uses_only_the_cores_public_surface(self) -> None:
        for folder in FOLDERS:
            for path in (SERVER / folder).rglob("*.py"):
                used = {name for name in imports_of(path) if name.startswith("asketa_core")}
                self.assertLessEqual(used, CORE_MODULES, str(path))


class Files(SimpleTestCase):
    def test_the_list_of_licences_is_that_of_what_is_installed(self) -> None:
        tool = Path(settings.ROOT) / "tools" / "licences.py"
        told = subprocess.run([sys.executable, str(tool), "--check"], capture_output=True, text=True, check=False)
        self.assertEqual(told.returncode, 0, told.stderr)

    def test_no_registry_addresses(self) -> None:
        root = Path(settings.ROOT)
        locks = [
            *root.glob("requirements/*.txt"),
            *root.glob("requirements/*.in"),
            root / "web" / "package-lock.json",
            root / "web" / ".npmrc",
        ]
        for path in locks:
            text = path.read_text(encoding="utf-8")
            self.assertIsNone(
                re.search(r'"resolved"|--index-url|https?://(?!.*(?:fund|opencollective|github|tidelift))', text)
                if path.suffix != ".json"
                else re.search(r'"resolved": *"http', text),
                path.name,
            )
