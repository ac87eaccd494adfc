"""People who sign in. They are known by their e-mail address."""

from __future__ import annotations

from typing import Any, ClassVar

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.contrib.auth.models import PermissionsMixin
from django.db import models
from django.db.models.functions import Lower


class UserManager(BaseUserManager["User"]):
    def create_user(self, email: str, password: str, **fields: Any) -> User:
        user = self.model(email=self.normalize_email(email).lower(), **fields)
        user.set_password(password)
        user.save(using=self._db)
        return user

    def create_superuser(self, email: str, password: str, **fields: Any) -> User:
        """Somebody who may do everything Django's own permissions speak of; a practice's rows still need a membership."""
        return self.create_user(email, password, is_superuser=True, **fields)

    def get_by_natural_key(self, username: str | None) -> User:
        return self.get(email=(username or "").strip().lower())


class User(AbstractBaseUser, PermissionsMixin):
    email = models.EmailField(unique=True)
    full_name = models.CharField(max_length=120)
    is_active = models.BooleanField(default=True)

    objects: ClassVar[UserManager] = UserManager()

    USERNAME_FIELD = "email"
    REQUIRED_FIELDS: ClassVar[list[str]] = ["full_name"]

    class Meta:
        constraints = [models.UniqueConstraint(Lower("email"), name="user_email_once")]

    def __str__(self) -> str:
        return f"user {self.pk}"
