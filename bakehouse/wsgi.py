"""The application, for the server that runs it."""

import os
from pathlib import Path

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bakehouse.settings")
application = get_wsgi_application()

from django.conf import settings  # noqa: E402

from bakehouse.copies import keep_copies  # noqa: E402

if settings.BACKUPS:
    keep_copies(Path(settings.BACKUPS), keep=14)
