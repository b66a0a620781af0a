"""Put the demo sheets into the database."""

from __future__ import annotations

from axispath.demo.harbour import DEMOS
from axispath.store.database import Store
from axispath.store.sheets import store_demo


def load_demo(address: str) -> None:
    """Load every demo sheet, leaving those that are up to date alone."""
    store = Store(address)
    with store.transaction() as session:
        for name, make in DEMOS.items():
            store_demo(session, name, make())
    store.engine.dispose()
