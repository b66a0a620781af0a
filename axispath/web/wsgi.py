"""What gunicorn serves."""

from __future__ import annotations

import os

from axispath.web.app import create_app

app = create_app()
# Loaded before gunicorn forks its workers: each needs connections of its own.
os.register_at_fork(after_in_child=app.extensions["store"].forget_connections)
