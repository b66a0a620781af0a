"""The tests: dealt to processes, recorded one by one, and those that fail run once more alone.

``run.py`` is the command; ``hand.py`` is one process with the modules that it is dealt; ``deck.py``
is what is dealt; ``record.py`` is what became of each test.
"""
