"""Passphrases that are hashed quickly: what is tried here is who gets in, hundreds of times."""

from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher

from axispath.store import people

USUAL = people._hasher
people._hasher = PasswordHash((Argon2Hasher(time_cost=1, memory_cost=64, parallelism=1),))
