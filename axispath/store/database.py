"""The connection to PostgreSQL."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import psycopg
from psycopg import errors
from sqlalchemy import Engine, create_engine
from sqlalchemy.engine import make_url
from sqlalchemy.exc import InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session, sessionmaker

GONE = (OperationalError, InterfaceError, PoolTimeout)
CONNECT = 3  # seconds to connect
STATEMENT = 5  # seconds of a statement, by the server's clock
READ = 7.0  # seconds without an answer after which a server is taken to be gone, by ours
SETTINGS = " ".join(
    f"-c {name}={seconds}s"
    for name, seconds in (
        ("statement_timeout", STATEMENT),
        ("lock_timeout", STATEMENT - 1),
        ("idle_in_transaction_session_timeout", 20),
    )
)


class StoreGone(Exception):
    """The database cannot be reached just now."""


class PatientConnection(psycopg.Connection[Any]):
    """A connection that gives up a server which is there and says nothing."""

    def wait(self, gen: Any, interval: float = 0.1, timeout: float | None = READ) -> Any:
        """What a generator of the driver comes to, within a time."""
        try:
            return super().wait(gen, interval, timeout)
        except errors._WaitTimeout as error:
            self.pgconn.finish()  # whatever it says later belongs to nothing
            raise psycopg.OperationalError("no answer from the database") from error


def plain_address(address: str) -> str:
    """The address as the driver itself reads it, without the driver's name in it."""
    return make_url(address).set(drivername="postgresql").render_as_string(hide_password=False)


class Store:
    """Sessions on one database; each is a transaction that is kept or undone as a whole."""

    def __init__(self, address: str) -> None:
        self.address = address
        plain = plain_address(address)

        def connect() -> PatientConnection:
            return PatientConnection.connect(plain, connect_timeout=CONNECT, options=SETTINGS)

        self.engine: Engine = create_engine(
            address,
            creator=connect,
            pool_pre_ping=True,
            pool_size=5,
            max_overflow=5,
            pool_timeout=5,
        )
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)

    @contextmanager
    def transaction(self) -> Iterator[Session]:
        """One transaction. Raises StoreGone where the database cannot be reached."""
        try:
            with self._sessions.begin() as session:
                yield session
        except GONE as error:
            raise StoreGone from error

    def forget_connections(self) -> None:
        """Drop pooled connections, which must not be shared between processes."""
        self.engine.dispose(close=False)
