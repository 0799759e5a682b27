"""Settings. What differs from place to place comes from the environment:

DATA_DIR            where the database and the secret key live (default: data/ beside this tree)
EIGHT_TURN_TZ       the bakery's time zone (default: Europe/London)
EIGHT_TURN_HOSTS    host names it answers to, separated by commas, besides those it is found under
EIGHT_TURN_HTTPS    1 when a proxy in front speaks https: secure cookies, redirect, HSTS, and only the
                    names in EIGHT_TURN_HOSTS; house when it speaks https itself (bakehouse/serve.py)
EIGHT_TURN_LABELS   the label printer: folder:/path or socket:host:port (bakehouse/store/printer.py)
EIGHT_TURN_BACKUPS  a folder into which the house is copied every day while it runs
EIGHT_TURN_HSTS_ALL 1 when https is to be kept for all hosts of the domain as well
EIGHT_TURN_LOG      1 to write a line for every request, with its id
EIGHT_TURN_DEMO     1 when the demo runs: offers the demo accounts on the sign-in page
EIGHT_TURN_ADMIN    1 to open the tables of the house at /admin/, for whoever looks after it
"""

import os
import re
import sys
from contextlib import suppress
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.management.utils import get_random_secret_key

from bakehouse.whereabouts import Where

BASE_DIR = Path(__file__).resolve().parent.parent
DATA_DIR = Path(os.environ.get("DATA_DIR") or BASE_DIR / "data")
try:
    DATA_DIR.mkdir(parents=True, exist_ok=True)
except OSError as wrong:
    sys.exit(f"DATA_DIR, {DATA_DIR}, cannot be made: {wrong.strerror}.")


def _secret_key() -> str:
    """One key per installation, made on first use and readable by its owner only."""
    path = DATA_DIR / "secret_key"
    try:
        with open(os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "w") as new:
            new.write(get_random_secret_key())
    except FileExistsError:
        pass
    except OSError as wrong:
        sys.exit(f"{path} cannot be written: {wrong.strerror}.")
    return path.read_text()


def _for_its_owner_only(database: Path) -> Path:
    """The file of the database, which nobody else can read; what SQLite puts beside it is as that is."""
    with suppress(OSError):
        os.close(os.open(database, os.O_CREAT | os.O_WRONLY, 0o600))
        if database.stat().st_mode & 0o077:
            database.chmod(0o600)
    return database


SECRET_KEY = _secret_key()
DEBUG = False
DEMO = os.environ.get("EIGHT_TURN_DEMO") == "1"
LABELS = os.environ.get("EIGHT_TURN_LABELS", "")
BACKUPS = os.environ.get("EIGHT_TURN_BACKUPS", "")
LOG_REQUESTS = os.environ.get("EIGHT_TURN_LOG") == "1"
ADMIN = os.environ.get("EIGHT_TURN_ADMIN") == "1"
WHERE = Where.of(os.environ)
HTTPS = WHERE.scheme == "https"
BEHIND_HTTPS = os.environ.get("EIGHT_TURN_HTTPS") == "1"
ALLOWED_HOSTS = list(WHERE.hosts)

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "bakehouse",
    "bakehouse.people",
    "bakehouse.kitchen",
    "bakehouse.plans",
    "bakehouse.bench",
    "bakehouse.day",
    "bakehouse.cold",
    "bakehouse.store",
    "bakehouse.findings",
    "bakehouse.lessons",
    "bakehouse.demo",
]

MIDDLEWARE = [
    "bakehouse.answers.Answers",
    "bakehouse.uploads.Uploads",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    # what a tablet asks again and again and has not changed is answered with nothing but that
    "django.middleware.gzip.GZipMiddleware",
    "django.middleware.http.ConditionalGetMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "bakehouse.urls"
WSGI_APPLICATION = "bakehouse.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ],
        },
    },
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": _for_its_owner_only(DATA_DIR / "eight-turn.sqlite3"),
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            # FULL: what was acknowledged is on the disk, whatever happens to the power
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
        # A file, so that the browser tests' server thread and the test see one database.
        "TEST": {"NAME": DATA_DIR / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "bakehouse.people.doors.Doors",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("MinimumLengthValidator", "CommonPasswordValidator", "NumericPasswordValidator")
]
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "bakehouse.people.lockout.locked_out"
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False

SESSION_COOKIE_AGE = 30 * 24 * 3600  # a bench tablet stays signed in
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SECURE_SSL_REDIRECT = BEHIND_HTTPS
# not for the house's own certificate: a tablet that stopped trusting it could not come back
SECURE_HSTS_SECONDS = 31_536_000 if BEHIND_HTTPS else 0
# for this host only: what else stands on the domain is somebody else's to say
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = os.environ.get("EIGHT_TURN_HSTS_ALL") == "1"
# whose word is taken for it is seen to before (bakehouse/whole.py)
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_HTTPS else None
USE_X_FORWARDED_HOST = BEHIND_HTTPS
# both are about hosts that are not this one
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W021"]
X_FRAME_OPTIONS = "DENY"
CSRF_FAILURE_VIEW = "bakehouse.people.lockout.out_of_date"
CSRF_TRUSTED_ORIGINS = [WHERE.at(host) for host in WHERE.hosts] if HTTPS else []

# Everything comes from our own origin; styles that Mantine makes at run time carry the nonce.
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF, NONCE],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
        "worker-src": [SELF],
        "manifest-src": [SELF],
        "connect-src": [SELF],
    },
}

USE_TZ = True
TIME_ZONE = os.environ.get("EIGHT_TURN_TZ", "Europe/London")
LANGUAGE_CODE = "en-gb"

WEB_BUILD = BASE_DIR / "web" / "dist"
STATIC_URL = "/static/"
STATIC_ROOT = BASE_DIR / ".stamps" / "static"
STATIC_ROOT.mkdir(parents=True, exist_ok=True)
# packed once, at build, in both of the ways that browsers unpack
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "bakehouse.packed.PackedStorage"},
}
STATICFILES_DIRS = [WEB_BUILD] if WEB_BUILD.is_dir() else []


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802
    """Vite puts a hash of the content in the names of everything under assets/."""
    return re.search(r"/assets/.+-[\w-]{8}\.\w+$", url) is not None


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {message}", "style": "{"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # one line a request, where somebody wants it
    "loggers": {
        "bakehouse.requests": {"level": "INFO" if LOG_REQUESTS else "WARNING"},
    },
}
