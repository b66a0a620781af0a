"""The database that ./axis-path test has started, migrated once and emptied on request."""

import os
import time
import unittest
from functools import cache

from sqlalchemy import text

from axispath.command.serving import migrate
from axispath.store.database import Store, StoreGone


@cache
def address():
    found = os.environ.get("AXISPATH_TEST_DATABASE")
    if not found:
        raise unittest.SkipTest("needs a database: run ./axis-path test")
    migrate(found)
    return found


def empty_store():
    store = Store(address())
    for left in range(20, -1, -1):
        try:
            with store.transaction() as session:
                session.execute(
                    text("truncate person, sheet, revision, receipt, errand, attempt cascade")
                )
            return store
        except StoreGone:
            # A page that was just closed may still have something carried out.
            if not left:
                raise
            time.sleep(0.5)
    return store
