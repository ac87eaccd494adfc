"""Settings. Everything that differs between machines comes from the environment, which ``./asketa`` sets."""

from __future__ import annotations

import os
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
WEB_BUILD = ROOT / "web" / "dist"
LOCAL = Path(os.environ.get("ASKETA_LOCAL", ROOT / ".local"))

SECRET_KEY = os.environ.get("ASKETA_SECRET_KEY", "only-for-checks-without-a-server")
DEBUG = False
ALLOWED_HOSTS = os.environ.get("ASKETA_HOSTS", "127.0.0.1,localhost,testserver").split(",")
CSRF_TRUSTED_ORIGINS = [origin for origin in os.environ.get("ASKETA_ORIGINS", "").split(",") if origin]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "ninja",
    "common",
    "accounts",
    "practices",
    "audit",
    "room",
    "clients",
    "measures",
    "library",
    "visits",
    "exchange",
    "demo",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "DIRS": [WEB_BUILD]}]

# Two database roles: the owner migrates and owns every table; the application may only do what the
# grants allow and can neither change nor delete history.
DB_ROLE = os.environ.get("ASKETA_DB_ROLE", "app")
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("ASKETA_DB_NAME", "asketa"),
        "USER": f"asketa_{DB_ROLE}",
        "PASSWORD": os.environ.get(f"ASKETA_DB_PASSWORD_{DB_ROLE.upper()}", ""),
        "HOST": "127.0.0.1",
        "PORT": os.environ.get("ASKETA_DB_PORT", "5432"),
        "CONN_MAX_AGE": 60,
    }
}
APP_DB_ROLE = "asketa_app"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
# Five wrong tries for one address from one place lock it for ten minutes.
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 1 / 6
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_USERNAME_FORM_FIELD = "email"
AXES_DISABLE_ACCESS_LOG = True
AXES_VERBOSE = False

SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 12
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"

LANGUAGE_CODE = "en-gb"
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = LOCAL / "static"
WHITENOISE_ROOT = str(WEB_BUILD) if WEB_BUILD.exists() else None
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}

CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.locmem.LocMemCache",
        "OPTIONS": {"MAX_ENTRIES": 2000},
        "TIMEOUT": 60 * 60 * 12,
    }
}

TEST_RUNNER = "config.test_runner.CountingRunner"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
