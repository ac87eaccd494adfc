"""Clients, and the records their limits come from.

Records are append-only: a correction is a new row that points at what it replaces, and a record
always stands at its latest row.
"""

from __future__ import annotations

from typing import Any, ClassVar

from django.db import models

from asketa_core import Side
from practices.tenancy import PracticeRow, rows_by

SIDE_CHOICES = [(side.value, side.value) for side in Side]
SIDE_KNOWN = models.Q(side__in=[side.value for side in Side])


class ClientQuerySet(models.QuerySet["Client"]):
    def known(self) -> ClientQuerySet:
        """Clients with who they are beside them. Those whose person was erased are history and not among them."""
        return self.filter(person__isnull=False).select_related("person")

    def matching(self, text: str) -> ClientQuerySet:
        """Clients whose name or occupation contains the text."""
        return self.known().filter(
            models.Q(person__name__icontains=text) | models.Q(person__occupation__icontains=text)
        )


class Client(PracticeRow):
    """Somebody without a name: what is recorded, measured and logged leads here, and who it is stands in ``Person``.
    ``version`` grows with every edit of either; an edit that names an older one is refused."""

    discomfort_allowed = models.PositiveSmallIntegerField(default=2)
    breath_s = models.PositiveSmallIntegerField(default=6)
    """Seconds of one calm breath, in and out."""
    archived = models.BooleanField(default=False)
    """Put away: in no list, with everything kept."""
    version = models.PositiveIntegerField(default=1)

    objects: ClassVar[Any] = rows_by(ClientQuerySet)

    class Meta:
        ordering = ["person__name", "id"]
        constraints = [
            models.CheckConstraint(condition=models.Q(discomfort_allowed__lte=5), name="discomfort_allowed_0_to_5"),
            models.CheckConstraint(condition=models.Q(breath_s__gte=2, breath_s__lte=20), name="breath_plausible"),
        ]


class Person(PracticeRow):
    """Who a client is, and what was written about them in free words: all of it, so that deleting this one row leaves a
    history that names nobody. ``notes`` are by the id of the row they were written for."""

    client = models.OneToOneField(Client, on_delete=models.PROTECT, related_name="person")
    name = models.CharField(max_length=120)
    birth_date = models.DateField(null=True, blank=True)
    occupation = models.CharField(max_length=120, blank=True)
    goals = models.TextField(blank=True)
    """What the client wants of the work, in their words."""
    contacts: Any = models.JSONField(default=list)
    """Who treats them and whom to call, each with a role and whether the client agreed to being spoken about."""
    notes: Any = models.JSONField(default=dict)

    class Meta:
        constraints = [models.CheckConstraint(condition=~models.Q(name=""), name="person_has_a_name")]

    def note_of(self, row_id: object) -> str:
        return str(self.notes.get(str(row_id), ""))

    def keep_note(self, row_id: object, text: str) -> None:
        """Write a note beside those there are; what is written at the same time elsewhere stays."""
        added = models.Value({str(row_id): text}, models.JSONField())
        notes = models.expressions.CombinedExpression(models.F("notes"), "||", added, models.JSONField())
        Person.objects.filter(pk=self.pk).update(notes=notes)
        self.notes[str(row_id)] = text


class EntryQuerySet(models.QuerySet["Entry"]):
    def standing(self) -> EntryQuerySet:
        """The latest row of every record that was not withdrawn."""
        return self.filter(replaced_by__isnull=True, withdrawn=False)


class Entry(PracticeRow):
    """One version of a record. ``root`` is the first version's id and names the record for good."""

    append_only = True

    client = models.ForeignKey(Client, on_delete=models.PROTECT, related_name="entries")
    root = models.UUIDField()
    replaces = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="replaced_by")
    withdrawn = models.BooleanField(default=False)
    kind = models.CharField(max_length=30)
    side = models.CharField(max_length=5, choices=SIDE_CHOICES, null=True)
    """No side for what concerns the body as a whole."""
    facts: Any = models.JSONField()
    from_date = models.DateField(null=True)
    until_date = models.DateField(null=True)

    objects: ClassVar[Any] = rows_by(EntryQuerySet)

    class Meta:
        ordering = ["created_at", "id"]
        constraints = [
            # Whether a side is needed is known to the kinds of record alone; it is checked before anything is stored.
            models.CheckConstraint(
                condition=models.Q(side__isnull=True) | SIDE_KNOWN,
                name="entry_side_is_one",
            ),
            models.CheckConstraint(
                condition=models.Q(replaces__isnull=False) | models.Q(root=models.F("id")), name="entry_root_is_first"
            ),
        ]


class Clearance(PracticeRow):
    """A treating professional's dated word about a record."""

    append_only = True

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="clearances")
    who = models.CharField(max_length=20)
    date = models.DateField()
    scope: Any = models.JSONField()


class InstructionQuerySet(models.QuerySet["Instruction"]):
    def standing(self) -> InstructionQuerySet:
        """Those that were not taken back."""
        return self.filter(withdrawn=False, replaced_by__isnull=True)


class Instruction(PracticeRow):
    """A treating professional's dated word about a record: figures in the place of the rules' own; what was said in free
    words is kept with the person. One that was taken back is replaced by a row that says so."""

    append_only = True

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="instructions")
    replaces = models.OneToOneField("self", null=True, on_delete=models.PROTECT, related_name="replaced_by")
    withdrawn = models.BooleanField(default=False)
    who = models.CharField(max_length=20)
    date = models.DateField()
    until = models.DateField(null=True)
    figures: Any = models.JSONField()

    objects: ClassVar[Any] = rows_by(InstructionQuerySet)

    class Meta:
        ordering = ["date", "created_at", "id"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(until__isnull=True) | models.Q(until__gte=models.F("date")),
                name="instruction_ends_after_it_begins",
            )
        ]


class SignsAnswer(PracticeRow):
    """That the signs of a record that belong to a doctor were gone through on a day, and which were there."""

    append_only = True

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="signs_answers")
    date = models.DateField()
    signs: Any = models.JSONField()

    class Meta:
        ordering = ["date", "created_at"]


class DailyAnswer(PracticeRow):
    """What was asked at arrival about a record."""

    append_only = True

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="daily_answers")
    date = models.DateField()
    pain_today = models.PositiveSmallIntegerField(null=True)
    irritable = models.CharField(max_length=7, default="unknown")

    class Meta:
        ordering = ["date", "created_at"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(pain_today__isnull=True) | models.Q(pain_today__lte=10), name="pain_0_to_10"
            )
        ]
