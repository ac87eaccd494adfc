"""WSGI entry point. Whoever serves loads this once and forks: everything that takes time to load is loaded here."""

import gc
import os

from django.core.wsgi import get_wsgi_application

from asketa_core import load

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()
load()
# What is loaded stays shared between the processes: no collection writes to it.
gc.collect()
gc.freeze()
