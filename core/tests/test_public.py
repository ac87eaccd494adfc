"""What the core is to others: one list of names, no Django, dependencies in one direction."""

from __future__ import annotations

import ast
import subprocess
import sys
from pathlib import Path
from unittest import TestCase

import asketa_core

SOURCE = Path(asketa_core.__file__).parent


def imports_of(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module is not None:
            found.add(node.module)
    return found


class PublicSurface(TestCase):
    def test_every_name_is_there_and_sorted_by_kind(self) -> None:
        for name in asketa_core.__all__:
            self.assertTrue(hasattr(asketa_core, name), name)
        self.assertEqual(len(asketa_core.__all__), len(set(asketa_core.__all__)))

    def test_nothing_public_is_missing_from_the_list(self) -> None:
        tree = ast.parse((SOURCE / "__init__.py").read_text(encoding="utf-8"))
        imported = {
            alias.asname or alias.name for node in tree.body if isinstance(node, ast.ImportFrom) for alias in node.names
        }
        self.assertEqual(imported, set(asketa_core.__all__))


class Dependencies(TestCase):
    def test_no_server_no_clock_no_network(self) -> None:
        for path in SOURCE.rglob("*.py"):
            for name in imports_of(path):
                self.assertNotIn(
                    name.split(".")[0], {"django", "ninja", "time", "socket", "urllib", "requests"}, path.name
                )

    def test_geometry_planning_and_the_compiler_are_loaded_only_where_they_are_needed(self) -> None:
        code = "import sys, asketa_core; sys.exit(bool({'scipy', 'shapely', 'pyclipper', 'ortools', 'numba'} & set(sys.modules)))"
        self.assertEqual(subprocess.run([sys.executable, "-c", code], check=False).returncode, 0)

    def test_no_circles_between_modules(self) -> None:
        graph = {
            "asketa_core." + ".".join(path.relative_to(SOURCE).with_suffix("").parts): {
                name for name in imports_of(path) if name.startswith("asketa_core.")
            }
            for path in SOURCE.rglob("*.py")
            if path.name != "__init__.py"
        }
        done: set[str] = set()

        def visit(module: str, trail: tuple[str, ...]) -> None:
            self.assertNotIn(module, trail, " → ".join((*trail, module)))
            if module in done:
                return
            for target in graph.get(module, set()):
                visit(target, (*trail, module))
            done.add(module)

        for module in graph:
            visit(module, ())
