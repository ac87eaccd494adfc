"""The permission catalogue: every permission there is, and which role has which."""

from __future__ import annotations

from enum import StrEnum


class Permission(StrEnum):
    CLIENTS_READ = "clients.read"
    CLIENTS_WRITE = "clients.write"
    VISITS_WRITE = "visits.write"
    LIBRARY_READ = "library.read"
    LIBRARY_WRITE = "library.write"
    ROOM_READ = "room.read"
    ROOM_WRITE = "room.write"
    PRACTICE_READ = "practice.read"
    PRACTICE_WRITE = "practice.write"


class Role(StrEnum):
    OWNER = "owner"
    THERAPIST = "therapist"
    READER = "reader"


_GRANTS: dict[Role, frozenset[Permission]] = {
    Role.OWNER: frozenset(Permission),
    Role.THERAPIST: frozenset(Permission) - {Permission.PRACTICE_WRITE},
    Role.READER: frozenset(
        {Permission.CLIENTS_READ, Permission.LIBRARY_READ, Permission.ROOM_READ, Permission.PRACTICE_READ}
    ),
}


def role_has(role: str, permission: Permission) -> bool:
    """Whether a role has a permission; a role nobody declared raises instead of being refused quietly."""
    return permission in _GRANTS[Role(role)]
