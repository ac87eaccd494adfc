"""Load the demo data, if nothing is there yet."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from demo import loader


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if loader.is_loaded():
            self.stdout.write("· the demo data is there already")
            return
        self.stdout.write("· loading the demo data")
        names = loader.load()
        self.stdout.write(f"· loaded: {', '.join(names)}")
