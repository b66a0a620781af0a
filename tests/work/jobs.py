"""What the tests of the broker have carried out."""

import os
import signal
import time
from pathlib import Path

from axispath.core.sheet.refused import EditRefused
from axispath.work.protocol import Passing


def pid():
    return os.getpid()


def doubled(number):
    return 2 * number


def refused(text):
    raise EditRefused(text, 1, 2, "mended")


def broken():
    class Own(Exception):
        pass

    raise Own("what was typed")


def for_ever():
    while True:
        pass


def asleep(seconds):
    time.sleep(seconds)
    return seconds


def until_there(file):
    while not Path(file).exists():
        time.sleep(0.01)
    return os.getpid()


def large(bytes_):
    held = bytearray(bytes_)
    held[::4096] = b"x" * len(held[::4096])
    time.sleep(1)
    return len(held)


kept = []


def hoarding(bytes_):
    kept.append(bytearray(b"x") * bytes_)
    return os.getpid()


def killed(file):
    """Killed from outside, as many times as the file has no line yet."""
    with Path(file).open("a") as out:
        out.write("once\n")
    os.kill(os.getpid(), signal.SIGKILL)


def killed_once(file):
    if not Path(file).exists():
        killed(file)
    return "done"


def noted(file):
    with Path(file).open("a") as out:
        out.write("once\n")
    time.sleep(0.3)
    return "done"


def unfinished(file):
    noted(file)
    return Passing("later")
