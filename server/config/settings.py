"""Settings. Everything that differs between machines comes from the environment, which ``./asketa`` sets."""

from __future__ import annotations

import datetime as dt
import os
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
WEB_BUILD = ROOT / "web" / "dist"
LOCAL = Path(os.environ.get("ASKETA_LOCAL", ROOT / ".local"))

SECRET_KEY = os.environ["ASKETA_SECRET_KEY"]
SECRET_KEY_FALLBACKS = [key for key in os.environ.get("ASKETA_OLD_SECRET_KEYS", "").split(",") if key]
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
    "engine",
    "library",
    "visits",
    "appointments",
    "plans",
    "exchange",
    "demo",
]

MIDDLEWARE = [
    "common.middleware.InOneLanguage",
    "common.middleware.ErrorsInOneShape",
    "common.middleware.NotKept",
    "django.middleware.security.SecurityMiddleware",
    # Files come compressed from the build; what is worked out is compressed on its way.
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "common.middleware.PlainAddresses",
    "common.middleware.OnlyJson",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
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
        "CONN_HEALTH_CHECKS": True,
        # Values go to the database apart from the statement, so that no statement it writes into its log holds any.
        "OPTIONS": {"server_side_binding": True},
    }
}
# Where the private database writes its log; the tests look into it for what must not be there.
DATABASE_LOG = Path(os.environ["ASKETA_DB_LOG"]) if "ASKETA_DB_LOG" in os.environ else None
APP_DB_ROLE = "asketa_app"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
# Wrong passwords borne within ten minutes: for one name from one address, for one name, and from one address.
AXES_HANDLER = "accounts.throttle.ByNameAndAddress"
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"], "username", "ip_address"]
SIGN_IN_LIMITS = (5, 20, 50)
AXES_FAILURE_LIMIT = 1
AXES_COOLOFF_TIME = dt.timedelta(minutes=10)
AXES_USERNAME_FORM_FIELD = "username"
AXES_CLIENT_IP_CALLABLE = "accounts.throttle.client_address"
# How many proxies of one's own stand before the server; without any, the forwarded header is not believed.
TRUSTED_PROXIES = int(os.environ.get("ASKETA_TRUSTED_PROXIES", "0"))
# The sign-in view answers a lock itself, in the shape of every other error.
SILENCED_SYSTEM_CHECKS = ["axes.W002"]
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
# A made-up language that shows what stands outside the catalogues; for development and tests.
PSEUDO_LANGUAGE = os.environ.get("ASKETA_PSEUDO_LANGUAGE") == "1"
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = LOCAL / "static"
WHITENOISE_ROOT = str(WEB_BUILD) if WEB_BUILD.exists() else None
WHITENOISE_ALLOW_ALL_ORIGINS = False


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:
    """The build names every file below assets by its content."""
    return url.startswith("/assets/")


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

CSRF_FAILURE_VIEW = "common.errors.csrf_failure"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "scrubbed": {"()": "common.logs.Scrubbed", "format": "%(asctime)s %(levelname)s %(name)s %(message)s"}
    },
    "filters": {"no_values": {"()": "common.logs.NoValues"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "scrubbed", "filters": ["no_values"]}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # Django's own loggers would add a handler of theirs, which prints what errors say.
    "loggers": {"django": {"handlers": ["console"], "level": "WARNING", "propagate": False}},
}
