"""How often anybody may ask: per guest and per address, counted for all processes together.

Generous for a class behind one address, and for a slider that is dragged; not for a loop.
"""

from __future__ import annotations

import time
from ipaddress import ip_address, ip_network
from typing import Any

from flask import Flask
from flask.typing import ResponseReturnValue
from flask_limiter import Limiter, RateLimitExceeded
from flask_limiter.util import get_remote_address
from limits.storage import Storage

from axispath.web.person import current_person, guest
from axispath.web.troubles import told
from axispath.work.client import Broker, Here

EACH = "6000 per minute"  # requests of one guest: a drag asks for some dozens of pictures a second
ADDRESS = "90000 per minute"  # requests from one address: a school
NEW = "240 per minute;2400 per hour"  # new guests from one address
SHEETS = "60 per minute"  # new sheets of one guest
PASSPHRASES = "90 per minute;1500 per hour"  # forms with one from one address: a school signs in
FREE = ("static", "versioned", "operating.health", "operating.metrics")


def network(address: str) -> str:
    """Whom an address belongs to: of IPv6 it is the first 64 bits that somebody is given."""
    try:
        found = ip_address(address)
    except ValueError:
        return address
    if found.version == 4:
        return address
    mapped = found.ipv4_mapped
    return str(mapped or ip_network((found, 64), strict=False))


def from_network() -> str:
    """Whose turn it is by where a request comes from."""
    return network(get_remote_address())


class Counted(Storage):
    """Counts that the broker keeps. It need not be exact, but the same for all processes."""

    STORAGE_SCHEME = ["axispath"]  # noqa: RUF012  as the library has it

    def __init__(self, uri: str, broker: Broker | Here, wrap_exceptions: bool = False) -> None:
        super().__init__(uri, wrap_exceptions=wrap_exceptions)
        self.broker = broker

    @property
    def base_exceptions(self) -> type[Exception]:
        """What goes wrong where the broker does not answer."""
        return Exception

    def incr(self, key: str, expiry: int, amount: int = 1) -> int:
        """Count, in a window that began with the first."""
        count: int = self.broker.tell("rate", key, amount, float(expiry))[0]
        return count

    def get(self, key: str) -> int:
        """The count of the window that is open."""
        count: int = self.broker.tell("rate", key, 0, 0.0)[0]
        return count

    def get_expiry(self, key: str) -> float:
        """When the window ends, in seconds since 1970."""
        until: float = self.broker.tell("rate", key, 0, 0.0)[1]
        return until

    def check(self) -> bool:
        """Whether the broker answers."""
        return self.broker.tell("counts") is not None

    def reset(self) -> int | None:
        """Nothing forgets all counts at once."""
        return None

    def clear(self, key: str) -> None:
        """Forget a count."""
        self.broker.tell("forget", key)


def limit(app: Flask, broker: Broker | Here) -> None:
    """Refuse who asks too often, with the time after which it goes on."""
    app.config.update(
        RATELIMIT_STORAGE_URI="axispath://",
        RATELIMIT_STORAGE_OPTIONS={"broker": broker},
        RATELIMIT_STRATEGY="fixed-window",
        RATELIMIT_SWALLOW_ERRORS=True,  # without its broker a page can still be read
    )
    limiter = Limiter(key_func=guest, app=app, application_limits=[EACH])

    @app.errorhandler(RateLimitExceeded)
    def too_often(_: RateLimitExceeded) -> ResponseReturnValue:
        reached = limiter.current_limit
        wait = max(1, int(reached.reset_at - time.time())) if reached else 1
        found, status = told(429, "This is asked for too often; it goes on in a moment.")
        return found, status, {"Retry-After": str(wait)}

    everybody = limiter.shared_limit(ADDRESS, "address", key_func=from_network)
    new = limiter.shared_limit(
        NEW, "new", key_func=from_network, exempt_when=lambda: current_person() is not None
    )
    views: dict[str, Any] = app.view_functions
    for name in views:
        if name in FREE:
            limiter.exempt(views[name])
        else:
            views[name] = everybody(views[name])
    passphrases = limiter.limit(PASSPHRASES, key_func=from_network)
    views["account.act"] = passphrases(views["account.act"])
    views["sealed.enter"] = passphrases(views["sealed.enter"])
    views["api.start_sheet"] = limiter.limit(SHEETS)(new(views["api.start_sheet"]))
