"""A managing device that only pretends: it asks which page to lock to, and reports a lock.

It locks nothing. It is there to try the interface with, and for tests.
"""

from __future__ import annotations

import json
import time
import urllib.error
import urllib.request
from typing import Any

from axispath.device.reports import signature

PATIENCE = 20  # seconds


class Device:
    """One student's machine. ``link`` is that of the hand-out, ``key`` is on its owner's page."""

    def __init__(self, link: str, key: str) -> None:
        self.link = link.rstrip("/")
        self.key = key

    def asked(self) -> dict[str, Any]:
        """What the server wants: the page to lock to, from when to when."""
        with urllib.request.urlopen(f"{self.link}/lock.json", timeout=PATIENCE) as answer:
            found: dict[str, Any] = json.load(answer)
            return found

    def report(self, sitting: str, locked: bool, at: int | None = None) -> int:
        """Say whether the machine is locked to the page; gives the status of the answer."""
        moment = int(time.time()) if at is None else at
        body = {
            "sitting": sitting,
            "locked": locked,
            "at": moment,
            "signature": signature(self.key, sitting, locked, moment),
        }
        request = urllib.request.Request(
            f"{self.link}/lock",
            json.dumps(body).encode(),
            {"Content-Type": "application/json"},
            method="POST",
        )
        try:
            with urllib.request.urlopen(request, timeout=PATIENCE) as answer:
                return int(answer.status)
        except urllib.error.HTTPError as error:
            return error.code
