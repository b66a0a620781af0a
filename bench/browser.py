"""A server of this checkout and Chromium in front of it."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from axispath.command.cluster import running_cluster
from axispath.command.place import scratch


@contextmanager
def served() -> Iterator[tuple[Any, str]]:
    """A browser, and the address of an empty server that is gone afterwards."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-bench-", dir=scratch()) as folder,
        running_cluster(Path(folder), lasting=False) as own,
    ):
        os.environ["AXISPATH_TEST_DATABASE"] = own.address
        from playwright.sync_api import sync_playwright

        from tests.browser.harness import CHROMIUM, Server
        from tests.database import empty_store

        empty_store().engine.dispose()
        server = Server(workers=2)
        server.start()
        try:
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(**CHROMIUM)
                yield browser, server.url
                browser.close()
        finally:
            server.stop()
