"""Django's settings. What differs between places comes from the environment; data lives in one folder."""

import os
from pathlib import Path

from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("DUNEFOLD_DATA", ROOT / "data")).resolve()
DATA.mkdir(parents=True, exist_ok=True)
if DATA.stat().st_uid == os.geteuid() and os.access(DATA, os.W_OK):
    # Whoever else works on this machine reads none of it.
    DATA.chmod(0o700)


def _secret() -> str:
    """The key of this installation, made once and kept beside its data."""
    kept = DATA / "secret-key"
    if not kept.exists():
        with os.fdopen(os.open(kept, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as stream:
            stream.write(get_random_secret_key())
    return kept.read_text()


SECRET_KEY = os.environ.get("DUNEFOLD_SECRET_KEY") or _secret()
DEBUG = os.environ.get("DUNEFOLD_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("DUNEFOLD_HOSTS", "localhost,127.0.0.1,[::1],testserver").split(",")
ROOT_URLCONF = "server.config.urls"
WSGI_APPLICATION = "server.config.wsgi.application"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.messages",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "rest_framework",
    "drf_spectacular",
    "django_tasks",
    "django_tasks_db",
    "server.common",
    "server.accounts",
    "server.projects",
    "server.jobs",
    "server.buildings",
    "server.views",
    "server.styles",
    "server.sheets",
    "server.plots",
    "server.changes",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "server.common.space.room_to_write",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "dist"],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": os.environ.get("DUNEFOLD_DATABASE", DATA / "dunefold.sqlite3"),
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA foreign_keys=ON;",
        },
        # A file, so that the worker of the browser tests sees what their server writes.
        "TEST": {"NAME": str(DATA / "test.sqlite3")},
    }
}

AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("UserAttributeSimilarityValidator", "MinimumLengthValidator", "CommonPasswordValidator")
]
SESSION_COOKIE_SAMESITE = "Lax"
X_FRAME_OPTIONS = "DENY"

STATIC_URL = "/static/"
STATICFILES_DIRS = [ROOT / "web" / "dist"] if (ROOT / "web" / "dist").exists() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = DEBUG
# The builder names each file after its contents.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/static/assets/.+$"

REST_FRAMEWORK = {
    "DEFAULT_PARSER_CLASSES": [
        "server.common.parsers.PlainJSONParser",
        "rest_framework.parsers.FormParser",
        "rest_framework.parsers.MultiPartParser",
    ],
    "DEFAULT_AUTHENTICATION_CLASSES": [
        "rest_framework.authentication.SessionAuthentication",
        "rest_framework.authentication.BasicAuthentication",
    ],
    "DEFAULT_PERMISSION_CLASSES": ["rest_framework.permissions.IsAuthenticated"],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "server.common.problems.problem_response",
    "DEFAULT_THROTTLE_RATES": {"sign-in": os.environ.get("DUNEFOLD_SIGN_IN_RATE", "20/min")},
    "TEST_REQUEST_DEFAULT_FORMAT": "json",
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Dunefold",
    "DESCRIPTION": "Drawing sheets at true scale from a building model.",
    "VERSION": "1",
    "OAS_VERSION": "3.1.0",
    "SERVE_INCLUDE_SCHEMA": False,
    "SERVE_PERMISSIONS": ["rest_framework.permissions.IsAuthenticated"],
    "COMPONENT_SPLIT_REQUEST": True,
    "ENUM_NAME_OVERRIDES": {
        "JobKind": "server.jobs.models.Job.Kind",
        "JobState": "server.jobs.models.Job.State",
        "Screening": [(share, share) for share in (100, 80, 60, 50, 40, 30, 20, 10)],
        "Orientation": "drafting.sheets.paper.ORIENTATIONS",
        "PrintState": "server.plots.models.Print.State",
        "DrawingState": "server.views.models.STATES",
    },
}

TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["short", "long"]}}

# Limits, each of which an installation may change.
MODEL_FILE_LIMIT = int(os.environ.get("DUNEFOLD_MODEL_FILE_LIMIT", 500 * 1024 * 1024))  # bytes
JOB_TIME_LIMIT = float(os.environ.get("DUNEFOLD_JOB_TIME_LIMIT", 1800))  # seconds
JOB_STALL_LIMIT = float(os.environ.get("DUNEFOLD_JOB_STALL_LIMIT", 300))  # seconds without a sign of progress
JOB_MEMORY_LIMIT = int(os.environ.get("DUNEFOLD_JOB_MEMORY_LIMIT", 8 * 1024**3))  # bytes
APART_MEMORY_LIMIT = int(os.environ.get("DUNEFOLD_APART_MEMORY_LIMIT", 2 * 1024**3))  # bytes
DISK_RESERVE = int(os.environ.get("DUNEFOLD_DISK_RESERVE", 200 * 1024**2))  # bytes that stay free
FILE_UPLOAD_HANDLERS = ["django.core.files.uploadhandler.TemporaryFileUploadHandler"]
FILE_UPLOAD_TEMP_DIR = DATA

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
