"""Letters: sent by a mail server, or written into a folder; none where neither is configured.

AXISPATH_LETTERS is smtp://HOST:PORT (or smtps://, with USER:PASSWORD@ before the host where that is
needed), or a folder; AXISPATH_LETTERS_FROM is the sender.
"""

from __future__ import annotations

import logging
import os
import secrets
import smtplib
from email.message import EmailMessage
from pathlib import Path
from urllib.parse import unquote, urlsplit

PATIENCE = 10.0  # seconds for a mail server
log = logging.getLogger(__name__)


def configured() -> bool:
    """Whether letters can be sent."""
    return bool(os.environ.get("AXISPATH_LETTERS"))


def send(to: str, subject: str, text: str) -> bool:
    """Send a letter; says whether that was possible. Its address and text are not logged."""
    letter = EmailMessage()
    letter["To"], letter["Subject"] = to, subject
    letter["From"] = os.environ.get("AXISPATH_LETTERS_FROM", "axis-path@localhost")
    letter.set_content(text)
    where = os.environ["AXISPATH_LETTERS"]
    try:
        if where.startswith(("smtp://", "smtps://")):
            _by_server(where, letter)
        else:
            place = Path(where) / f"{secrets.token_hex(8)}.eml"
            place.write_bytes(letter.as_bytes())
    except (OSError, smtplib.SMTPException) as error:
        log.error("a letter could not be sent: %s", type(error).__name__)
        return False
    return True


def _by_server(where: str, letter: EmailMessage) -> None:
    found = urlsplit(where)
    kind = smtplib.SMTP_SSL if found.scheme == "smtps" else smtplib.SMTP
    with kind(found.hostname or "localhost", found.port or 0, timeout=PATIENCE) as server:
        if found.username:
            server.login(unquote(found.username), unquote(found.password or ""))
        server.send_message(letter)
