"""What gunicorn serves."""

from __future__ import annotations

import os

from axispath.web.app import create_app
from axispath.web.assets import pack

app = create_app()
pack()
# Loaded before gunicorn forks its workers: they share what is packed, and each needs connections
# of its own.
os.register_at_fork(after_in_child=app.extensions["store"].forget_connections)
