"""What a managing device reports, and how it is told apart from what anybody could send."""

from __future__ import annotations

import hashlib
import hmac


def signature(key: str, sitting: str, locked: bool, at: int) -> str:
    """HMAC-SHA-256 (RFC 2104) over a report; ``at`` are seconds since 1970."""
    text = f"{sitting} {'locked' if locked else 'unlocked'} {at}"
    return hmac.new(key.encode(), text.encode(), hashlib.sha256).hexdigest()


def is_signed(key: str, sitting: str, locked: bool, at: int, given: str) -> bool:
    """Whether a report was signed with a key."""
    return hmac.compare_digest(signature(key, sitting, locked, at), given)
