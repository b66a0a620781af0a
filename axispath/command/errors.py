"""Trouble that ends a command with a sentence."""


class CommandFailed(Exception):
    """A command cannot go on; the message says why, for whoever started it."""
