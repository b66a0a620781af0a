"""The connection to PostgreSQL."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy import Engine, create_engine
from sqlalchemy.exc import InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session, sessionmaker

GONE = (OperationalError, InterfaceError, PoolTimeout)


class StoreGone(Exception):
    """The database cannot be reached just now."""


class Store:
    """Sessions on one database; each is a transaction that is kept or undone as a whole."""

    def __init__(self, address: str) -> None:
        self.engine: Engine = create_engine(
            address,
            pool_pre_ping=True,
            pool_size=5,
            max_overflow=5,
            pool_timeout=5,
            connect_args={"connect_timeout": 3},
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
