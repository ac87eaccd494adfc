"""Where answers are kept: in this process, and beside the rows for all processes of the server.

What is asked for together, as all about one client's day, is looked up together and written together: one query of each
kind at most while a practice is open, however many answers that are. A process looks up what it has not seen yet.
"""

from __future__ import annotations

import datetime as dt
import hashlib
import hmac
import pickle
import uuid
import zlib
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from typing import TypeVar

from django.conf import settings
from django.core.cache import cache
from django.db import DatabaseError, transaction
from django.db.models import Q
from django_scopes import scopes_disabled

from common import clock
from engine.models import Answer
from practices.tenancy import Opening, opening

T = TypeVar("T")

KEPT = dt.timedelta(days=2)
"""Answers hold for one day; what is older than this nobody asks for any more."""

WRITTEN_WITHIN = dt.timedelta(minutes=2)
"""An answer is written at most so long after it was worked out: what is as much older than the last look was seen by it."""


def answered(about: str, key: str, compute: Callable[[], T]) -> T:
    """The answer under a key: known to this process, to another one, or computed. Without an opened practice only this
    process keeps it."""
    known = cache.get(key)
    if known is None and (here := opening()) is not None:
        _Desk.of(here).look_up(about, key)
        known = cache.get(key)
    if known is not None:
        # Whatever an older version wrote and this one cannot read is computed anew.
        with suppress(Exception):
            found: T = pickle.loads(known)
            return found
    computed = compute()
    packed = pickle.dumps(computed, pickle.HIGHEST_PROTOCOL)
    cache.set(key, packed)
    if (here := opening()) is not None:
        _Desk.of(here).write(about, key, packed)
    return computed


def forget() -> None:
    """Nothing answered before is served again, as far as the database lets one see."""
    cache.clear()
    with scopes_disabled():
        Answer.objects.all().delete()


@dataclass
class _Desk:
    """What one opening of a practice has looked up, and what it has to write when it closes."""

    practice_id: uuid.UUID
    looked_up: set[uuid.UUID] = field(default_factory=set)
    to_write: dict[uuid.UUID, Answer] = field(default_factory=dict)

    @staticmethod
    def of(here: Opening) -> _Desk:
        if _Desk not in here.notes:
            desk = here.notes[_Desk] = _Desk(here.practice_id)
            here.at_end.append(desk.close)
        found: _Desk = here.notes[_Desk]
        return found

    def look_up(self, about: str, key: str) -> None:
        """An answer that is not known here, with all about the same that other processes wrote since this one looked last;
        once for each opening."""
        which = self._number(about)
        if which in self.looked_up:
            return
        self.looked_up.add(which)
        looked, now = f"looked-up:{which}", clock.now()
        since = cache.get(looked, dt.datetime.min.replace(tzinfo=dt.UTC))
        # What was seen and has been forgotten since is found by itself.
        wanted = Q(pk=self._number(key)) | Q(about=which, created_at__gt=since)
        for body in Answer.objects.filter(wanted).values_list("body", flat=True):
            if (known := _opened(bytes(body))) is not None:
                cache.add(*known)
        cache.set(looked, now - WRITTEN_WITHIN)

    def write(self, about: str, key: str, packed: bytes) -> None:
        number = self._number(key)
        self.to_write[number] = Answer(
            id=number, practice_id=self.practice_id, about=self._number(about), body=_sealed(key, packed)
        )

    def close(self) -> None:
        if not self.to_write:
            return
        # In one order, so that two who write the same do not wait for each other; who comes second finds it there. An answer
        # that could not be kept is no less an answer.
        rows = sorted(self.to_write.values(), key=lambda row: row.id)
        self.to_write.clear()
        with suppress(DatabaseError), transaction.atomic():
            Answer.objects.bulk_create(rows, ignore_conflicts=True)
            # Whoever writes sweeps: seldom enough, and by an index.
            Answer.objects.filter(created_at__lt=clock.now() - KEPT).delete()

    def _number(self, text: str) -> uuid.UUID:
        return uuid.UUID(bytes=hashlib.sha256(self.practice_id.bytes + text.encode()).digest()[:16])


SEAL_BYTES = 32


def _sealed(key: str, packed: bytes) -> bytes:
    body = zlib.compress(f"{key}\n".encode() + packed, 1)
    return _seal_of(body) + body


def _seal_of(body: bytes) -> bytes:
    return hmac.digest(settings.SECRET_KEY.encode(), body, "sha256")


def _opened(sealed: bytes) -> tuple[str, bytes] | None:
    """A key and its answer as it was packed; ``None`` where this server did not write it."""
    seal, body = sealed[:SEAL_BYTES], sealed[SEAL_BYTES:]
    if not hmac.compare_digest(seal, _seal_of(body)):
        return None
    key, _, packed = zlib.decompress(body).partition(b"\n")
    return key.decode(), packed
