"""Entry point of the production server."""

from __future__ import annotations

import os
from importlib import import_module

from django.conf import settings
from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "wobble.site.settings")
application = get_wsgi_application()
# Django would load the addresses, and with them the core, at each worker's first request. Loaded here, before the
# server forks, one copy is shared by all.
import_module(settings.ROOT_URLCONF)
