"""Changes to a practice's own variations: every one is a new version, checked before it is kept."""

from __future__ import annotations

import secrets
from typing import Any

from django.db import IntegrityError, transaction
from django.http import Http404

from accounts.models import User
from asketa_core import OWN_PREFIX, lineage, read_own, todays
from audit.models import record
from common import speech
from common.errors import Stale, bad_field
from common.speech import words
from engine.shelf import practice_library
from library.models import OwnRung
from practices.models import Practice


@transaction.atomic
def add(practice: Practice, user: User, raw: Any) -> OwnRung:
    """A new variation from a file. ``InputError`` names the first field that is wrong; nothing is stored then."""
    key = f"{OWN_PREFIX}{secrets.token_hex(4)}"
    own = read_own(raw, practice_library().library, key)
    row = OwnRung.objects.create(practice=practice, created_by=user, key=key, content=own.file(words()))
    record(row, "variation.added", user)
    return row


@transaction.atomic
def change(user: User, variation_id: str, number: int, raw: Any) -> OwnRung:
    """A new version of a variation, made on version ``number``; brings a retired one back.

    Raises ``Stale`` with what stands now when somebody saved in between.
    """
    row = _standing(variation_id, number)
    own = read_own(raw, practice_library().library, row.key)
    if own.rung.family != row.content["family"]:
        raise bad_field("family", speech.own("field", "stays_in_family"))
    if variation_id in lineage(practice_library().own, own.after):
        raise bad_field("after", speech.own("field", "below_itself"))
    return _next(row, user, own.file(words()), retired=False, action="variation.changed")


@transaction.atomic
def retire(user: User, variation_id: str, number: int) -> OwnRung:
    """No longer offered. What was logged on it stays readable."""
    row = _standing(variation_id, number)
    return _next(row, user, row.content, retired=True, action="variation.retired")


def get_standing(variation_id: str) -> OwnRung:
    """The latest version of one of the opened practice's own variations; 404 otherwise."""
    family, _, key = variation_id.partition(".")
    row = OwnRung.objects.standing().filter(key=key).first()
    if row is None or row.content["family"] != family:
        raise Http404
    return row


def _standing(variation_id: str, number: int) -> OwnRung:
    row = get_standing(variation_id)
    if row.number != number:
        raise _stale(row)
    return row


def _next(row: OwnRung, user: User, content: Any, *, retired: bool, action: str) -> OwnRung:
    try:
        with transaction.atomic():
            after = OwnRung.objects.create(
                practice_id=row.practice_id, created_by=user, key=row.key, number=row.number + 1, replaces=row,
                content=content, retired=retired,
            )  # fmt: skip
    except IntegrityError as error:
        now = OwnRung.objects.standing().get(key=row.key)
        raise _stale(now) from error
    record(after, action, user)
    return after


def _stale(now: OwnRung) -> Stale:
    return Stale({"number": now.number, "file": todays(now.content, practice_library().library)})
