"""The engine answers what is recorded, compiled and as plain Python."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np

from asketa_core import Side
from tests.kernel.golden import NOBODY, answer, answers, cases, recorded, somebody
from tests.library import variation

CORE = Path(__file__).parents[2]

NEAR = 2e-5
"""How near read-outs come to what is recorded: an angle near the end of a sine or cosine has half its digits."""

FEW_SETUPS = 12
PLAINLY = 30


class Recorded(TestCase):
    def assert_as(self, found: dict[str, Any], expected: dict[str, Any]) -> None:
        where = str(expected["of"])
        read, known = found.pop("read", {}), expected.pop("read", {})
        self.assertEqual(read.keys(), known.keys(), where)
        for key, levels in known.items():
            self.assert_near(read[key], levels, NEAR * (100 if "percent" in key else 1), f"{where} {key}")
        for name in ("margin", "purpose", "size"):
            self.assert_near([found.pop(name, None)], [expected.pop(name, None)], NEAR, f"{where} {name}")
        self.assertEqual(found, expected)

    def assert_near(self, found: list[float | None], expected: list[float | None], within: float, where: str) -> None:
        one, other = (np.array([np.nan if v is None else v for v in values]) for values in (found, expected))
        np.testing.assert_allclose(one, other, rtol=0, atol=within, err_msg=where)

    def test_answers_are_those_recorded(self) -> None:
        known = recorded()
        self.assertEqual([tuple(each["of"]) for each in known], list(cases()))
        for found, expected in zip(answers(), known, strict=True):
            self.assert_as(found, expected)

    def test_and_are_so_as_plain_python(self) -> None:
        code = "import json; from tests.kernel.test_golden import plainly; print(json.dumps(plainly()))"
        plain = subprocess.run(
            [sys.executable, "-c", code], cwd=CORE, capture_output=True, check=True, text=True,
            env={**os.environ, "NUMBA_DISABLE_JIT": "1", "PYTHONPATH": f"src{os.pathsep}."},
        )  # fmt: skip
        found = json.loads(plain.stdout)
        self.assertGreater(len(found), PLAINLY / 2)
        for expected, one in found:
            self.assert_as(one, expected)


def plainly() -> list[tuple[dict[str, Any], dict[str, Any]]]:
    """Some small grids, with what is recorded of them."""
    small = [each for each in recorded() if "read" in each and each.get("setups", 0) <= FEW_SETUPS]
    everybody = [each for each in small if each["of"][0] != NOBODY] + small
    return [
        (each, {"of": each["of"], **answer(somebody(seed), variation(rung), Side(side), read_off=True)})
        for each in everybody[:PLAINLY]
        for seed, rung, side in [each["of"]]
    ]
