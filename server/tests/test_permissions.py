"""Which permission each address asks for, and which roles have it: one table, read before it is changed."""

from __future__ import annotations

from django.test import SimpleTestCase

from common.permissions import Permission, Role, role_has
from tests.test_isolation import WITHOUT_PRACTICE, operations

ASKED = {
    "addVariation": "library.write", "changePracticeSettings": "practice.write", "answerDaily": "clients.write", "answerMorning": "visits.write",
    "bookAppointment": "clients.write", "cancelAppointment": "clients.write", "moveAppointment": "clients.write",
    "restoreAppointment": "clients.write", "today": "clients.read", "outlook": "clients.read",
    "noteIncident": "visits.write", "archiveClient": "clients.write", "decide": "visits.write", "keepTrial": "visits.write", "setupWays": "clients.read", "plan": "clients.read", "savePlan": "visits.write", "planAgain": "visits.write", "addToPlan": "visits.write",
    "suggestOrder": "clients.read", "setBreath": "visits.write", "listTemplates": "clients.read",
    "keepTemplate": "visits.write", "putTemplateAway": "visits.write",
    "changeVariation": "library.write", "clientHead": "clients.read", "coming": "clients.read",
    "correctEntry": "clients.write", "correctItem": "visits.write", "createClient": "clients.write",
    "exportClient": "clients.read", "exportVariation": "library.read", "giveClearance": "clients.write",
    "importClient": "clients.write", "ladder": "clients.read", "ladderDrawings": "clients.read", "ladders": "clients.read", "calendar": "clients.read",
    "library": "library.read", "whyNot": "clients.read", "practiceCalendar": "clients.read", "giveInstruction": "clients.write",
    "withdrawInstruction": "clients.write", "answerSigns": "clients.write", "recordSeen": "clients.write", "visitNotes": "clients.read",
    "writeVisitNote": "visits.write", "takeOnCaution": "visits.write", "differences": "clients.read",
    "libraryFamily": "library.read", "libraryFamilyForClient": "clients.read", "libraryVariation": "library.read",
    "libraryVariationForClient": "clients.read", "libraryPurposes": "library.read", "libraryWords": "library.read", "listEntries": "clients.read",
    "recordForms": "clients.read", "listFamilies": "clients.read", "listItems": "clients.read", "listMeasures": "clients.read", "listRoom": "room.read",
    "logItem": "visits.write", "mat": "clients.read", "practiceSettings": "practice.read", "previewEntry": "clients.read", "recordEntry": "clients.write",
    "responses": "clients.read", "responsesCsv": "clients.read", "restoreEntry": "clients.write",
    "retireVariation": "library.write", "searchClients": "clients.read", "setup": "clients.read",
    "setupDetail": "clients.read", "setupWay": "clients.read", "storeMeasures": "clients.write", "takeToTheMat": "visits.write",
    "timeZones": "practice.read", "turnTape": "clients.read", "updateClient": "clients.write", "usualClosers": "library.read",
    "variationVersions": "library.read", "withdrawEntry": "clients.write",
}  # fmt: skip


class Asked(SimpleTestCase):
    def test_each_address_asks_for_its_permission(self) -> None:
        found = {
            str(operation.operation_id): operation.view_func.permission.value
            for _, _, operation in operations()
            if operation.operation_id not in WITHOUT_PRACTICE
        }
        self.assertEqual(found, ASKED)

    def test_what_changes_something_is_no_read(self) -> None:
        for method, _, operation in operations():
            name = str(operation.operation_id)
            if name in ASKED and method in ("PUT", "DELETE"):
                self.assertTrue(ASKED[name].endswith(".write"), name)

    def test_roles(self) -> None:
        reads = {Permission.CLIENTS_READ, Permission.LIBRARY_READ, Permission.ROOM_READ, Permission.PRACTICE_READ}
        for permission in Permission:
            self.assertTrue(role_has(Role.OWNER, permission))
            # A practice's own settings are its owner's.
            self.assertEqual(role_has(Role.THERAPIST, permission), permission is not Permission.PRACTICE_WRITE)
            self.assertEqual(role_has(Role.READER, permission), permission in reads)
        with self.assertRaises(ValueError):
            role_has("stranger", Permission.CLIENTS_READ)
