"""Settings, read from the environment in one place.

WOBBLE_DATA: folder of the database and the secret key. WOBBLE_WEB: the built front end. WOBBLE_DEMO: "1" lets anyone in
as the demo user. WOBBLE_HOSTS: host names that the site answers to, comma-separated. WOBBLE_ORIGINS: addresses that
pages come from, with https:// where they are encrypted. WOBBLE_PROXY: address of a proxy in front, which is believed.
WOBBLE_TLS: "1" where all that comes is encrypted on its way.
"""

from __future__ import annotations

import os
from datetime import timedelta
from pathlib import Path

from wobble.site.secret import secret_key

ROOT = Path(__file__).resolve().parents[3]
DATA = Path(os.environ.get("WOBBLE_DATA") or ROOT / "var")  # said empty is not said
WEB = Path(os.environ.get("WOBBLE_WEB") or ROOT / "web" / "dist")
DEMO = os.environ.get("WOBBLE_DEMO") == "1"

TLS = os.environ.get("WOBBLE_TLS") == "1" or any(
    origin.startswith("https://") for origin in os.environ.get("WOBBLE_ORIGINS", "").split(",")
)
"""Whether pages come encrypted: then cookies go no other way, and browsers are told to come back encrypted."""

DEBUG = False
SECRET_KEY = os.environ.get("WOBBLE_SECRET_KEY") or secret_key(DATA)
ALLOWED_HOSTS = os.environ.get("WOBBLE_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("WOBBLE_ORIGINS", "").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "ninja",
    "axes",
    "wobble.site.apps.WobbleSite",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "wobble.site.middleware.content_security",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",  # with random bytes of its own, so that lengths tell nothing (BREACH)
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",  # says how long an answer is, so that its connection can be kept
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
# Per name and address: whoever guesses is held up, and the owner comes in from anywhere else meanwhile.
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_RESET_ON_SUCCESS = True
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_DISABLE_ACCESS_LOG = True
AXES_ENABLE_ADMIN = False
AXES_CLIENT_IP_CALLABLE = "wobble.site.people.address_of"
AXES_LOCKOUT_CALLABLE = "wobble.site.api.session.too_often"
# What is logged of a failure names whom it was for, and from where.
AXES_SENSITIVE_PARAMETERS = ["password"]
ROOT_URLCONF = "wobble.site.urls"
WSGI_APPLICATION = "wobble.site.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "wobble.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            # Writers queue instead of failing half way; FULL keeps acknowledged writes through a power cut.
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; "
            "PRAGMA temp_store=MEMORY; PRAGMA journal_size_limit=67108864; PRAGMA cache_size=-20000",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
SESSION_COOKIE_AGE = 60 * 60 * 24 * 60  # a job on site runs over weeks; signing in with dusty hands should be rare
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = TLS
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 180 if TLS else 0
SECURE_SSL_REDIRECT = TLS
# The name may be one of several of a household, and no list of browsers knows it.
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W021"]
SECURE_PROXY_SSL_HEADER = None
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
# A little over the largest scan, so that its own error is told; the largest job document is smaller.
DATA_UPLOAD_MAX_MEMORY_SIZE = 61 * 1024 * 1024
USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False

STATIC_URL = "static/"
WHITENOISE_ROOT = WEB if WEB.is_dir() else None
# Files without a hash in their name may change with the next version: ask each time.
WHITENOISE_MAX_AGE = 0


def _hashed(_path: str, url: str) -> bool:
    return url.startswith("/assets/")


WHITENOISE_IMMUTABLE_FILE_TEST = _hashed

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
