"""Django's settings. What differs between places comes from the environment; data lives in one folder."""

import os
from contextlib import suppress
from datetime import timedelta
from pathlib import Path

from django.core.management.utils import get_random_secret_key

from server.common.machines import LONG_STEPS, SHORT_STEPS, STEPS, queue_at, storage_at

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
ASGI_APPLICATION = "server.config.asgi.application"
TEST_RUNNER = "e2e.runner.Runner"
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
    "axes",
    "rest_framework",
    "drf_spectacular",
    "drf_spectacular_sidecar",
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
    "server.annotations",
    "server.touchups",
    "server.plots",
    "server.checks",
    "server.issues",
    "server.reviews",
    "server.changes",
    "server.events",
    "server.operations",
]

MIDDLEWARE = [
    "django_prometheus.middleware.PrometheusBeforeMiddleware",
    "server.common.responses.files_in_pieces",
    "server.common.requests.with_request_id",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "server.common.responses.api_is_not_stored",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "server.common.space.room_to_write",
    "server.events.telling.with_tab",
    "server.accounts.middleware.Sessions",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
    "django_prometheus.middleware.PrometheusAfterMiddleware",
]

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "dist", ROOT / "server" / "config" / "templates"],
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
        "ENGINE": "server.common.sqlite",
        "NAME": os.environ.get("DUNEFOLD_DATABASE", DATA / "dunefold.sqlite3"),
        # A thread keeps its connection.
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
        # A file, so that the worker of the browser tests sees what their server writes.
        "TEST": {"NAME": str(DATA / "test.sqlite3")},
    }
}

_VALIDATORS = "django.contrib.auth.password_validation"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"{_VALIDATORS}.UserAttributeSimilarityValidator"},
    {"NAME": f"{_VALIDATORS}.MinimumLengthValidator", "OPTIONS": {"min_length": 12}},
    {"NAME": f"{_VALIDATORS}.CommonPasswordValidator"},
]
# Guesses are counted for an account and an address together, on whichever path they come: nobody locks out an
# office, and nobody is locked out by somebody elsewhere.
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "server.accounts.remembered.Users",
]
SESSION_ENGINE = "server.accounts.remembered"
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_FAILURE_LIMIT = int(os.environ.get("DUNEFOLD_SIGN_IN_TRIES", 10))
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_CALLABLE = "server.accounts.viewsets.locked_out"

SESSION_COOKIE_SAMESITE = "Lax"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"],
        "img-src": ["'self'", "data:", "blob:"],
        "worker-src": ["'self'", "blob:"],
        # The interface's styles are made while it runs; its scripts are files.
        "style-src": ["'self'", "'unsafe-inline'"],
        "font-src": ["'self'", "data:"],
        "object-src": ["'none'"],
        "base-uri": ["'self'"],
        "form-action": ["'self'"],
        "frame-ancestors": ["'none'"],
    }
}

# Behind a proxy that speaks TLS: `DUNEFOLD_ORIGINS` are its addresses, such as https://drawings.example.
CSRF_TRUSTED_ORIGINS = [origin for origin in os.environ.get("DUNEFOLD_ORIGINS", "").split(",") if origin]
# Which names are served is said by `DUNEFOLD_HOSTS`, whoever forwards them.
USE_X_FORWARDED_HOST = bool(os.environ.get("DUNEFOLD_PROXY"))
if CSRF_TRUSTED_ORIGINS:
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    SECURE_SSL_REDIRECT = True
    SECURE_HSTS_SECONDS = 365 * 24 * 3600
    SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = True

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
        "server.accounts.tokens.TokenAuthentication",
    ],
    "DEFAULT_PERMISSION_CLASSES": [
        "rest_framework.permissions.IsAuthenticated",
        "server.accounts.tokens.WithinScope",
        "server.projects.roles.WithinRole",
    ],
    "DEFAULT_RENDERER_CLASSES": ["rest_framework.renderers.JSONRenderer"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "server.common.problems.problem_response",
    "DEFAULT_THROTTLE_RATES": {
        "sign-in": os.environ.get("DUNEFOLD_SIGN_IN_RATE", "20/min"),
        "comment": os.environ.get("DUNEFOLD_COMMENT_RATE", "60/min"),
    },
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
    # The page that shows it is shipped, and its requests go out as whoever is signed in.
    "SWAGGER_UI_DIST": "SIDECAR",
    "SWAGGER_UI_FAVICON_HREF": "SIDECAR",
    "SWAGGER_UI_SETTINGS": {"persistAuthorization": False, "docExpansion": "none", "filter": True},
    "ENUM_NAME_OVERRIDES": {
        "JobKind": "server.jobs.models.Job.Kind",
        "ScreenLanguage": "server.accounts.models.Preferences.Language",
        "JobState": "server.jobs.models.Job.State",
        "Screening": [(share, share) for share in (100, 80, 60, 50, 40, 30, 20, 10)],
        "FileUnit": [(unit, unit) for unit in ("mm", "cm", "m", "in", "ft")],
        "Orientation": "drafting.sheets.paper.ORIENTATIONS",
        "PrintState": "server.plots.models.Print.State",
        "DrawingState": "server.views.models.STATES",
        "MemberRole": "server.projects.models.Membership.Role",
        "RoleEnum": "drafting.linework.model.ROLES",
        "CommentState": "server.reviews.models.Comment.State",
        "LinkUseKind": "server.reviews.models.LinkUse.Kind",
        "SentState": "server.issues.models.SentIssue.State",
        "Figures": "drafting.annotation.dimensions.STYLE_NAMES",
        "LevelColumnSide": "drafting.annotation.own_levels.BESIDE",
        "ShapeForm": "drafting.annotation.shapes.FORMS",
    },
}

TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["short", "long"]}}

# Heavy work on other machines: the queue that carries it, and where its files are on their way, which all of
# them reach: a folder, or a bucket as s3://name/folder.
QUEUE = os.environ.get("DUNEFOLD_QUEUE", "")
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
    "work": storage_at(os.environ.get("DUNEFOLD_WORK_FILES", str(DATA / "work-files"))),
}
if QUEUE:
    INSTALLED_APPS.append("django_rq")
    TASKS[STEPS] = {"BACKEND": "django_tasks_rq.RQBackend", "QUEUES": [SHORT_STEPS, LONG_STEPS]}
    RQ_SHOW_ADMIN_LINK = False
    RQ_QUEUES = {name: queue_at(QUEUE) for name in ("default", SHORT_STEPS, LONG_STEPS)}

# What was issued is put into folders here; mail waits in an outbox of files unless a service is named.
DELIVERED = Path(os.environ.get("DUNEFOLD_DELIVERED", DATA / "delivered"))
ADDRESS = os.environ.get("DUNEFOLD_ADDRESS", "http://localhost:8000")  # of links in mails
EMAIL_HOST = os.environ.get("DUNEFOLD_MAIL_HOST", "")
EMAIL_PORT = int(os.environ.get("DUNEFOLD_MAIL_PORT", 25))
EMAIL_BACKEND = f"django.core.mail.backends.{'smtp' if EMAIL_HOST else 'filebased'}.EmailBackend"
EMAIL_FILE_PATH = DATA / "outbox"
DEFAULT_FROM_EMAIL = os.environ.get("DUNEFOLD_MAIL_FROM", "drawings@localhost")

# Where a backup is added every night from this hour on, and how many stay; none where no folder is named.
BACKUP_FOLDER = Path(os.environ["DUNEFOLD_BACKUPS"]) if os.environ.get("DUNEFOLD_BACKUPS") else None
BACKUP_HOUR = int(os.environ.get("DUNEFOLD_BACKUP_HOUR", 2))
BACKUPS_KEPT = int(os.environ.get("DUNEFOLD_BACKUPS_KEPT", 14))

# Limits, each of which an installation may change.
MODEL_FILE_LIMIT = int(os.environ.get("DUNEFOLD_MODEL_FILE_LIMIT", 500 * 1024 * 1024))  # bytes
JOB_TIME_LIMIT = float(os.environ.get("DUNEFOLD_JOB_TIME_LIMIT", 1800))  # seconds
JOB_STALL_LIMIT = float(os.environ.get("DUNEFOLD_JOB_STALL_LIMIT", 300))  # seconds without a sign of progress
JOB_MEMORY_LIMIT = int(os.environ.get("DUNEFOLD_JOB_MEMORY_LIMIT", 8 * 1024**3))  # bytes
APART_MEMORY_LIMIT = int(os.environ.get("DUNEFOLD_APART_MEMORY_LIMIT", 2 * 1024**3))  # bytes
PROJECT_LIMIT = int(os.environ.get("DUNEFOLD_PROJECT_LIMIT", 0))  # bytes of one project's files; 0: any
DISK_RESERVE = int(os.environ.get("DUNEFOLD_DISK_RESERVE", 200 * 1024**2))  # bytes that stay free
FILE_UPLOAD_HANDLERS = ["django.core.files.uploadhandler.TemporaryFileUploadHandler"]
FILE_UPLOAD_TEMP_DIR = DATA

#: Which process this is, by which its log is called.
PART = os.environ.get("DUNEFOLD_PART", "command")
LOGS = DATA / "logs"
with suppress(OSError):  # a read-only disk is read all the same
    LOGS.mkdir(exist_ok=True)
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"request": {"()": "server.common.requests.RequestFilter"}},
    "formatters": {
        "lines": {
            "()": "pythonjsonlogger.json.JsonFormatter",
            "format": "{asctime}{levelname}{name}{message}{request_id}",
            "style": "{",
            "rename_fields": {"asctime": "time", "levelname": "level", "name": "logger"},
        },
    },
    "handlers": {
        "console": {"class": "logging.StreamHandler", "level": "WARNING", "filters": ["request"]},
        # A line of JSON for each event; each process has a file of its own, for no two can turn over one.
        "file": {
            "class": "logging.handlers.RotatingFileHandler",
            "filename": LOGS / f"{PART}.log",
            "maxBytes": 10 * 1024**2,
            "backupCount": 5,
            "delay": True,
            "encoding": "utf-8",
            "formatter": "lines",
            "filters": ["request"],
        },
    },
    "root": {"handlers": ["console", "file"] if PART != "command" else ["console"], "level": "WARNING"},
    "loggers": {
        # Who signed in and out, and who was refused; and every request to the API.
        "server.security": {"level": "INFO"},
        "server.requests": {"level": "INFO"},
    },
}
