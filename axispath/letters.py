"""Letters: sent by a mail server, or written into a folder; none where neither is configured.

AXISPATH_LETTERS is smtp://HOST:PORT (or smtps://, with USER:PASSWORD@ before the host where that is
needed), or a folder; AXISPATH_LETTERS_FROM is the sender.
"""

from __future__ import annotations

import logging
import os
import secrets
import smtplib
from collections.abc import Callable
from email.message import EmailMessage
from pathlib import Path
from threading import Thread
from urllib.parse import unquote, urlsplit

PATIENCE = 10.0  # seconds for a mail server
log = logging.getLogger(__name__)


def configured() -> bool:
    """Whether letters can be sent: their links need names that the application answers to."""
    return bool(os.environ.get("AXISPATH_LETTERS") and os.environ.get("AXISPATH_HOSTS"))


def send(to: str, subject: str, text: str) -> None:
    """Send a letter. Its address and text are not logged.

    A mail server is spoken to beside the request, so that how long an answer takes does not tell
    whether a letter was sent.
    """
    letter = EmailMessage()
    letter["To"], letter["Subject"] = to, subject
    letter["From"] = os.environ.get("AXISPATH_LETTERS_FROM", "axis-path@localhost")
    letter.set_content(text)
    where = os.environ["AXISPATH_LETTERS"]
    if where.startswith(("smtp://", "smtps://")):
        Thread(target=_sent, args=(_by_server, where, letter), daemon=True).start()
    else:
        _sent(_into_folder, where, letter)


def _sent(way: Callable[[str, EmailMessage], None], where: str, letter: EmailMessage) -> None:
    try:
        way(where, letter)
    except (OSError, smtplib.SMTPException) as error:
        log.error("a letter could not be sent: %s", type(error).__name__)


def _into_folder(where: str, letter: EmailMessage) -> None:
    place = Path(where) / f"{secrets.token_hex(8)}.eml"
    place.write_bytes(letter.as_bytes())


def _by_server(where: str, letter: EmailMessage) -> None:
    found = urlsplit(where)
    kind = smtplib.SMTP_SSL if found.scheme == "smtps" else smtplib.SMTP
    with kind(found.hostname or "localhost", found.port or 0, timeout=PATIENCE) as server:
        if found.username:
            server.login(unquote(found.username), unquote(found.password or ""))
        server.send_message(letter)
