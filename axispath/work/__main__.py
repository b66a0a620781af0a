"""Run the broker on the socket that the environment names, until told to stop."""

from __future__ import annotations

import logging
import os

from axispath.bound import end_with_parent
from axispath.web import exact
from axispath.web.inside import application
from axispath.work.broker import Broker
from axispath.work.client import ADDRESS
from axispath.work.kinds import EXACT
from axispath.work.supervising import supervise

if __name__ == "__main__":
    end_with_parent()
    logging.basicConfig(level=logging.INFO, format="%(levelname)s %(name)s: %(message)s")
    # Before there are workers: each starts with all of it.
    import scipy.optimize
    import scipy.stats  # noqa: F401

    import axispath.web.app  # noqa: F401

    application()
    address = os.environ[ADDRESS]
    supervise(address, lambda: Broker(address, {EXACT.name: exact.get_ready}).serve())
