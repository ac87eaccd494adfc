"""``python -m asketa_core.kernel``: compile everything there is to compile, so that nobody waits for it later."""

from __future__ import annotations

from importlib import import_module

from asketa_core.kernel.compiled import KERNEL, kept_in

for path in sorted(KERNEL.glob("[a-z]*.py")):
    import_module(f"asketa_core.kernel.{path.stem}")
print(kept_in())
